<!-- Asks at publishing what pictures show of which nothing is said yet: those who do not see them are told nothing else. -->
<script lang="ts">
	import { Modal } from 'flowbite-svelte';
	import { counted } from '#core/text/list';
	import { Button, Input } from '$lib/ui/parts/controls';
	import type { Writer } from './writer.svelte';

	let { writer }: { writer: Writer } = $props();
	let said = $state<Record<string, string>>({});
	const pictures = $derived(writer.silent?.pictures ?? []);
	const title = $derived(`What ${counted(pictures.length, 'picture shows', 'pictures show')}`);

	async function answer(event: SubmitEvent) {
		event.preventDefault();
		const at = writer.silent?.at;
		for (const { picture } of pictures) writer.describe(picture, said[picture]?.trim() ?? '');
		writer.silent = null;
		await writer.publish({ at });
	}
</script>

<Modal
	{title}
	aria-label={title}
	bind:open={
		() => writer.silent !== null,
		(open) => {
			if (!open) writer.silent = null;
		}
	}
	size="sm"
>
	<form onsubmit={answer}>
		<p>For those who do not see it. A picture that is decoration alone has nothing to say: leave its line empty.</p>
		{#each pictures as { picture, caption }, i (picture)}
			<div class="picture">
				<img src="/picture/{picture}.webp?w=400" alt="" />
				<Input
					aria-label="What picture {i + 1} shows"
					placeholder={caption ? `besides “${caption}”` : 'decoration'}
					maxlength={400}
					bind:value={() => said[picture] ?? '', (text) => (said[picture] = text)}
				/>
			</div>
		{/each}
		<p class="flex gap-2">
			<Button type="submit" kind="main">Publish</Button>
			<Button onclick={() => (writer.silent = null)}>Not yet</Button>
		</p>
	</form>
</Modal>

<style>
	form {
		display: grid;
		gap: 12px;
	}
	.picture {
		display: grid;
		grid-template-columns: 96px minmax(0, 1fr);
		gap: 12px;
		align-items: center;
	}
	img {
		max-width: 96px;
		max-height: 96px;
		border: 1px solid var(--line);
	}
</style>
