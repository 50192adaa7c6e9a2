<!-- A button, or a link that looks like one: plain, the one that does what a screen is for (main), words alone (quiet), a choice (pill), or bare. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { ClassValue, HTMLAnchorAttributes, HTMLButtonAttributes } from 'svelte/elements';
	import { Button } from 'flowbite-svelte';

	type Kind = 'plain' | 'main' | 'quiet' | 'pill' | 'bare';
	type Props = Omit<HTMLButtonAttributes, 'class'> &
		Pick<HTMLAnchorAttributes, 'href' | 'target' | 'rel' | 'download'> & { kind?: Kind; class?: ClassValue; children?: Snippet };
	let { kind = 'plain', class: more, children, ...rest }: Props = $props();
	const classes: Record<Kind, string> = { plain: 'btn', main: 'btn main', quiet: 'quiet', pill: 'pill', bare: 'bare' };
	const given: { class: ClassValue } = $derived({ ...rest, class: [classes[kind], more] });
</script>

<Button {...given}>{@render children?.()}</Button>
