<!-- Reading over the page: presses on links that ask for it open the reading room above the page, which stays where it was. Without
     this, such a link is an ordinary one. -->
<script lang="ts">
	import { pushState } from '$app/navigation';
	import { page } from '$app/state';

	let dialog = $state<HTMLDialogElement>();
	let pressed: HTMLElement | null = null;
	const href = $derived(page.state.over ?? null);

	function press(event: MouseEvent) {
		const link = (event.target as Element).closest?.<HTMLAnchorElement>('a[data-over]');
		if (!link || event.button || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return;
		event.preventDefault();
		event.stopPropagation();
		pressed = link;
		const address = new URL(link.href);
		address.searchParams.set('over', '1');
		pushState('', { over: address.pathname + address.search + address.hash });
	}
	function told(event: MessageEvent) {
		if (event.origin === location.origin && event.data === 'ianua-close' && page.state.over) history.back();
	}
	$effect(() => {
		if (href) dialog?.showModal();
		else if (dialog?.open) {
			dialog.close();
			pressed?.focus({ preventScroll: true });
		}
	});
</script>

<svelte:window onclickcapture={press} onmessage={told} />

<dialog
	bind:this={dialog}
	aria-label="Reading"
	oncancel={(event) => {
		event.preventDefault();
		history.back();
	}}
>
	{#if href}<iframe src={href} title="Reading room"></iframe>{/if}
</dialog>

<style>
	dialog {
		width: min(1200px, 100vw);
		height: 100dvh;
		max-width: none;
		max-height: none;
		margin: 0 auto;
		padding: 0;
		border: 0;
		background: var(--ground);
	}
	@media (min-width: 900px) {
		dialog {
			width: calc(100vw - 80px);
			height: calc(100dvh - 48px);
			margin: 24px auto;
		}
	}
	dialog::backdrop {
		background: rgb(15 26 25 / 66%);
	}
	iframe {
		width: 100%;
		height: 100%;
		border: 0;
		display: block;
	}
</style>
