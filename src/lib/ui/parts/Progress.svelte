<!-- How far something has come, as a bar that assistive programs read too. -->
<script lang="ts">
	import { Progressbar } from 'flowbite-svelte';

	let { percent, label, class: more = '' }: { percent: number; label: string; class?: string } = $props();
</script>

<Progressbar
	progress={percent}
	size="h-1.5"
	class={more}
	role="progressbar"
	aria-label={label}
	aria-valuemin={0}
	aria-valuemax={100}
	aria-valuenow={Math.round(percent)}
/>
