<!-- Asks a visitor whether their browser may be remembered. Either answer is kept, and the question goes. -->
<script lang="ts">
	import { words } from './words';
	let { over = false }: { /** Stands over what is read, and goes without loading anything anew. */ over?: boolean } = $props();
	let gone = $state(false);
	async function answer(event: MouseEvent & { currentTarget: HTMLAnchorElement }) {
		if (!over) return;
		event.preventDefault();
		gone = true;
		await fetch(`/healthz${new URL(event.currentTarget.href).search}`, { keepalive: true }).catch(() => {});
	}
</script>

{#if !gone}
	<aside class:over aria-label={words('rememberLabel')}>
		<p>{words('rememberAsk')}</p>
		<span
			><a href="?remember=yes" rel="nofollow" data-sveltekit-reload onclick={answer}>{words('rememberYes')}</a><a
				href="?remember=no"
				rel="nofollow"
				data-sveltekit-reload
				onclick={answer}>{words('rememberNo')}</a
			></span
		>
	</aside>
{/if}

<style>
	aside {
		display: flex;
		flex-wrap: wrap;
		gap: 6px 16px;
		align-items: center;
		margin-top: 28px;
		padding: 10px 14px;
		border: 1px solid var(--line);
		border-radius: var(--corner);
		background: var(--ground);
		font-size: 14px;
	}
	.over {
		position: fixed;
		inset-inline-start: 12px;
		bottom: 64px;
		z-index: 30;
		max-width: min(430px, calc(100vw - 70px));
		background: var(--sheet);
		border-color: var(--edge);
	}
	p {
		margin: 0;
		flex: 1 1 240px;
	}
	span {
		display: flex;
		gap: 8px;
	}
	a {
		display: inline-flex;
		align-items: center;
		min-height: 34px;
		padding: 0 14px;
		border: 1px solid var(--edge);
		border-radius: var(--corner);
		color: var(--ink);
		text-decoration: none;
	}
	a:hover {
		border-color: var(--ink);
	}
</style>
