<!-- Files from the computer; unseen where a button opens it. -->
<script lang="ts">
	import type { HTMLInputAttributes } from 'svelte/elements';
	import { Fileupload } from 'flowbite-svelte';

	type Props = Omit<HTMLInputAttributes, 'files' | 'size' | 'color'> & { files?: FileList | null; elementRef?: HTMLInputElement; unseen?: boolean };
	let { files = $bindable(), elementRef = $bindable(), unseen = false, ...rest }: Props = $props();
</script>

<Fileupload {...rest} bind:files bind:elementRef classes={{ wrapper: unseen ? 'opened-by-button' : '' }} />
