<!-- The pages of a list that the server sorts: which part is shown, of how many, and the ways on. Nothing where it is whole. -->
<script lang="ts">
	import { PaginationItem } from 'flowbite-svelte';
	import { goto } from '$app/navigation';
	import { Input } from '$lib/ui/parts/controls';

	let {
		label,
		shown,
		length,
		total,
		address,
		back = 'Back',
		further = 'Further'
	}: {
		/** What is leafed through, for who cannot see it. */
		label: string;
		/** The page that is shown, from 1. */
		shown: number;
		/** Lines of a page. */
		length: number;
		/** Lines of all pages. */
		total: number;
		address: (page: number) => string;
		/** What the ways on are called. */
		back?: string;
		further?: string;
	} = $props();

	const pages = $derived(Math.ceil(total / length));
	const figure = (n: number) => n.toLocaleString('en');
</script>

{#if pages > 1}
	<nav class="flex flex-wrap items-center justify-center gap-3 pt-3" aria-label={label}>
		{#if shown > 1}<PaginationItem href={address(shown - 1)} rel="prev" class="btn">{back}</PaginationItem>{/if}
		<span class="soft">{figure((shown - 1) * length + 1)} to {figure(Math.min(total, shown * length))} of {figure(total)}</span>
		{#if shown < pages}<PaginationItem href={address(shown + 1)} rel="next" class="btn">{further}</PaginationItem>{/if}
		{#if pages > 3}<label class="soft flex items-center gap-2"
				>Page <Input
					class="w-20!"
					type="number"
					min="1"
					max={pages}
					value={shown}
					onchange={(e) => goto(address(Math.min(pages, Math.max(1, Number(e.currentTarget.value) || 1))))}
				/>
				of {figure(pages)}</label
			>{/if}
	</nav>
{/if}
