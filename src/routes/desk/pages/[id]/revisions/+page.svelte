<script lang="ts">
	import { Button, Select } from '$lib/ui/parts/controls';
	import { goto } from '$app/navigation';
	import Compared from '$lib/ui/placing/Compared.svelte';
	import { counted } from '#core/text/list';
	import { dayText } from '$lib/ui/parts/when';
	let { data } = $props();
	const c = $derived(data.comparison);
	const address = (change: Record<string, number | null>) => {
		const params = new URLSearchParams();
		for (const [name, value] of Object.entries({ from: data.from, to: data.to, ...change })) if (value) params.set(name, String(value));
		return `?${params}`;
	};
</script>

<svelte:head><title>Revisions of {data.draft.title}, {data.site.name}</title></svelte:head>
<div class="hall">
	<p><a class="quiet" href="/desk/pages/{data.draft.id}">Back to writing</a></p>
	<h1>{data.draft.title}</h1>
	<div class="choose">
		<label
			>Revision <Select value={data.from} onchange={(e) => goto(address({ from: Number(e.currentTarget.value) }))}>
				{#each data.revisions as r (r.number)}<option value={r.number}>{r.number}, {dayText(r.publishedAt, data.site.zone)}</option>{/each}
			</Select></label
		>
		<label
			>against <Select value={data.to ?? 0} onchange={(e) => goto(address({ to: Number(e.currentTarget.value) || null }))}>
				<option value={0}>the draft</option>
				{#each data.revisions as r (r.number)}<option value={r.number}>{r.number}, {dayText(r.publishedAt, data.site.zone)}</option>{/each}
			</Select></label
		>
		<Button href="/desk/pages/{data.draft.id}/preview?revision={data.from}">Look at revision {data.from}</Button>
	</div>
	<p class="say">
		{c.added || c.removed ? `${counted(c.added, 'word', 'words')} added, ${counted(c.removed, 'word', 'words')} taken out.` : 'Their words are the same.'}
	</p>
	<Compared comparison={c} />
</div>

<style>
	.hall {
		max-width: 860px;
		padding: 16px 18px 40px;
	}
	.choose {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 16px;
		align-items: center;
		margin: 12px 0;
	}
	.choose :global(.field) {
		padding-right: 28px;
	}
</style>
