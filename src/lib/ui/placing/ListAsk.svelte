<!-- What a list is asked: words by a form, filters with their counts and the order by links. All of it stands in the address. -->
<script lang="ts">
	import type { SiteWords } from '#core/words/words';
	import { listOrders } from '#core/placing/listing';
	import type { SeenList } from '$lib/server/placing/contract';
	import { words } from '$lib/ui/parts/words';
	interface Filter {
		readonly name: string;
		readonly said: string;
		readonly values: SeenList['folders'];
	}
	let {
		seen,
		list,
		asked,
		filters,
		others,
		anchor,
		address
	}: {
		seen: SeenList;
		/** Its id among the lists of an article. */
		list: string | null;
		asked: URLSearchParams;
		filters: readonly Filter[];
		/** What else stands in the address. */
		others: readonly (readonly [string, string])[];
		anchor: string;
		/** Where something else is asked: what changes, null for what is no longer asked. */
		address: (change: Record<string, string | null>) => string;
	} = $props();
	const orderWords: Record<string, keyof SiteWords> = {
		title: 'byTitle',
		'-changed': 'newest',
		folder: 'byFolder',
		'-pages': 'longest',
		given: 'asArranged',
		match: 'bestMatch'
	};
	const orders = $derived([...(asked.get('q') ? ['match'] : []), ...listOrders].filter((order) => order !== 'given' || seen.order === 'given'));
	/** What stays asked when other words are looked for. */
	const kept = $derived([
		...others,
		...(list === null ? [] : [['list', list] as const]),
		...[...filters.map((filter) => filter.name), 'order'].flatMap((name) => {
			const value = asked.get(name);
			return value ? [[name, value] as const] : [];
		})
	]);
	/** More chips than these wait behind "more". */
	const atOnce = 14;
	/** The values shown at once: the commonest, and the chosen one whatever its count. */
	function shownOf({ name, values }: Filter): [first: SeenList['folders'], rest: SeenList['folders']] {
		const chosen = asked.get(name);
		const first = values.slice(0, atOnce);
		if (chosen && !first.some(({ value }) => value === chosen)) first.push(values.find(({ value }) => value === chosen) ?? { value: chosen, count: 0 });
		return [first, values.filter((value) => !first.includes(value))];
	}
	const chosenFrom = (name: string, value: string | null) => address({ [name]: value, from: null, read: null });
</script>

<form class="seek" role="search" action={anchor || undefined}>
	{#each kept as [name, value], i (i)}<input type="hidden" {name} {value} />{/each}
	<input class="field" type="search" name="q" value={asked.get('q') ?? ''} placeholder={words('findWords')} aria-label={words('findHere')} />
	<button class="btn main">{words('find')}</button>
</form>
{#snippet chip(name: string, { value, count }: SeenList['folders'][number])}
	<a class="chip" href={chosenFrom(name, value)} aria-current={asked.get(name) === value || undefined} data-sveltekit-noscroll
		><bdi>{value}</bdi> <i>{count}</i></a
	>
{/snippet}
{#each filters as filter (filter.name)}
	{#if filter.values.length > 1 || asked.get(filter.name)}
		{@const [first, rest] = shownOf(filter)}
		<div class="by" role="group" aria-label={filter.said}>
			<span class="said" aria-hidden="true">{filter.said}</span>
			<div class="chips">
				<a class="chip" href={chosenFrom(filter.name, null)} aria-current={!asked.get(filter.name) || undefined} data-sveltekit-noscroll>{words('all')}</a>
				{#each first as value (value.value)}{@render chip(filter.name, value)}{/each}
				{#if rest.length}<details>
						<summary class="chip">{words('further')} <i>{rest.length}</i></summary>
						<div class="chips">
							{#each rest as value (value.value)}{@render chip(filter.name, value)}{/each}
						</div>
					</details>{/if}
			</div>
		</div>
	{/if}
{/each}
<p class="order">
	<span>{words('order')}</span>
	{#each orders as order (order)}<a href={chosenFrom('order', order)} aria-current={seen.order === order || undefined} data-sveltekit-noscroll
			>{words(orderWords[order]!)}</a
		>{/each}
</p>

<style>
	.seek {
		display: flex;
		max-width: 736px;
		margin: 18px 0 14px;
	}
	.seek input {
		flex: 1;
		min-width: 0;
		height: 52px;
		font-size: 18px;
		border-start-end-radius: 0;
		border-end-end-radius: 0;
	}
	.seek .btn {
		height: 52px;
		border-start-start-radius: 0;
		border-end-start-radius: 0;
	}
	.by {
		display: grid;
		grid-template-columns: 92px minmax(0, 1fr);
		gap: 4px 12px;
		margin-bottom: 10px;
	}
	.said {
		line-height: 38px;
		color: var(--ink-soft);
		overflow-wrap: anywhere;
	}
	.chips {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
	}
	.chip {
		display: inline-flex;
		gap: 8px;
		align-items: center;
		min-height: 38px;
		max-width: 100%;
		padding: 4px 13px;
		border: 1px solid var(--edge, var(--line));
		border-radius: var(--corner);
		color: var(--ink);
		text-decoration: none;
		cursor: pointer;
		overflow-wrap: anywhere;
	}
	.chip:hover {
		border-color: var(--ink);
	}
	.chip i {
		font-style: normal;
		color: var(--ink-soft);
		font-variant-numeric: tabular-nums;
	}
	.chip[aria-current] {
		background: var(--brass-wash);
		border-color: var(--brass-bright);
		box-shadow: inset 0 -3px var(--brass-bright);
		font-weight: 600;
	}
	details[open] {
		flex-basis: 100%;
	}
	details[open] .chips {
		margin-top: 8px;
	}
	summary {
		list-style: none;
	}
	.order {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 16px;
		margin: 16px 0 8px;
	}
	.order span {
		color: var(--ink-soft);
	}
	.order a {
		color: var(--ink);
		line-height: 28px;
	}
	.order a[aria-current] {
		font-weight: 600;
		text-decoration: none;
		box-shadow: 0 2px 0 var(--brass-bright);
	}
	@media (max-width: 759px) {
		.by {
			grid-template-columns: minmax(0, 1fr);
		}
		.said {
			line-height: 1.4;
			font-size: 15px;
		}
		.by > .chips {
			flex-wrap: nowrap;
			overflow-x: auto;
			margin-inline: -20px;
			padding: 2px 20px;
			scrollbar-width: none;
		}
		.chip {
			flex: none;
			min-height: 44px;
		}
		/* what is chosen is not left beyond the edge */
		.by > .chips > .chip[aria-current] {
			order: -1;
		}
	}
</style>
