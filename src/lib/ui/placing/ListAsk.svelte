<!-- What a list is asked: words, filters with their counts, an order. A form, so without script too. -->
<script lang="ts">
	import type { SiteWords } from '#core/words/words';
	import { listOrders } from '#core/placing/listing';
	import type { SeenList } from '$lib/server/placing/contract';
	import { words } from '$lib/ui/parts/words';
	let {
		seen,
		list,
		asked,
		filters,
		others,
		anchor
	}: {
		seen: SeenList;
		/** Its id among the lists of an article. */
		list: string | null;
		asked: URLSearchParams;
		filters: readonly { readonly name: string; readonly said: string; readonly values: SeenList['folders'] }[];
		/** What else stands in the address. */
		others: readonly (readonly [string, string])[];
		anchor: string;
	} = $props();
	const orderWords: Record<string, keyof SiteWords> = {
		title: 'byTitle',
		'-changed': 'newest',
		folder: 'byFolder',
		'-pages': 'longest',
		given: 'asArranged',
		match: 'bestMatch'
	};
	const orders = $derived([...(asked.get('q') ? ['match'] : []), ...listOrders]);
</script>

<form class="ask" role="search" action={anchor || undefined}>
	{#each [...others, ...(list === null ? [] : [['list', list]])] as [name, value], i (i)}<input type="hidden" {name} {value} />{/each}
	<input class="field" type="search" name="q" value={asked.get('q') ?? ''} placeholder={words('findWords')} aria-label={words('findHere')} />
	{#each filters as filter (filter.name)}
		{#if filter.values.length > 1 || asked.get(filter.name)}
			<label
				>{filter.said}
				<select class="field" name={filter.name} data-asks>
					<option value="">{words('all')}</option>
					{#each filter.values as { value, count } (value)}<option {value} selected={asked.get(filter.name) === value}>{value} ({count})</option>{/each}
				</select></label
			>
		{/if}
	{/each}
	<label
		>{words('order')}
		<select class="field" name="order" data-asks>
			{#each orders as order (order)}<option value={order} selected={seen.order === order}>{words(orderWords[order]!)}</option>{/each}
		</select></label
	>
	<button class="btn">{words('show')}</button>
</form>

<style>
	.ask {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 12px;
		align-items: end;
		margin: 18px 0 8px;
	}
	.ask input {
		flex: 1 1 220px;
	}
	.ask label {
		display: flex;
		align-items: center;
		gap: 6px;
		font-size: 14px;
		color: var(--ink-soft);
	}
	.ask select {
		max-width: 200px;
		padding: 0 28px 0 8px;
		height: 44px;
		font-size: 15px;
	}
	.ask .field,
	.ask .btn {
		height: 44px;
	}
	@media (max-width: 600px) {
		.ask {
			display: grid;
			grid-template-columns: 1fr 1fr;
		}
		.ask input {
			grid-column: 1 / -1;
			height: 40px;
		}
		.ask label {
			display: grid;
			gap: 2px;
		}
		.ask select {
			width: 100%;
			max-width: none;
		}
		.ask .btn {
			height: 38px;
		}
	}
</style>
