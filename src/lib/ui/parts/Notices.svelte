<!-- What was done, with its undo, and what went wrong: above whatever stands at the foot of the screen. -->
<script lang="ts">
	import { Toast } from 'flowbite-svelte';
	import { dismiss, notices, undo } from './notices.svelte';
</script>

<div class="fixed bottom-[calc(1rem+var(--foot,0px))] left-4 z-50 flex flex-col gap-2" aria-live="polite">
	{#each notices.list as notice (notice.id)}
		<Toast
			dismissable={false}
			role={notice.tone === 'wrong' ? 'alert' : 'status'}
			class="max-w-md border p-3 {notice.tone === 'wrong' ? 'border-[var(--brick)]' : 'border-[var(--edge)]'}"
		>
			<div class="flex items-center gap-4">
				<span class={notice.tone === 'wrong' ? 'text-[var(--brick)]' : 'text-[var(--ink)]'}>{notice.text}</span>
				{#if notice.next}<a class="quiet" href={notice.next.href} onclick={() => dismiss(notice.id)}>{notice.next.words}</a>{/if}
				{#if notice.undo}
					<button class="quiet" aria-label="Undo: {notice.text}" onclick={() => undo(notice)}>Undo</button>
				{/if}
				<button class="quiet" aria-label="Close this notice" onclick={() => dismiss(notice.id)}>Close</button>
			</div>
		</Toast>
	{/each}
</div>
