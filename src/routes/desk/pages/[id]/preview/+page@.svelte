<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import Content from '$lib/ui/placing/Content.svelte';
	import SiteFrame from '$lib/ui/placing/SiteFrame.svelte';
	let { data } = $props();
	const phone = $derived(page.url.searchParams.get('on') === 'phone');
	function address(change: Record<string, string>) {
		const params = new URLSearchParams(page.url.searchParams);
		for (const [k, v] of Object.entries(change)) params.set(k, v);
		return `?${params}`;
	}
</script>

<svelte:head><title>Preview: {data.draft.title}</title></svelte:head>
<div class="bar">
	<a class="btn" href="/desk/pages/{data.draft.id}">Back to writing</a>
	<strong>Preview</strong>
	<label
		>as
		<select class="field" value={data.as} onchange={(e) => goto(address({ as: e.currentTarget.value }))}>
			<option value="visitor">a visitor</option>
			{#each data.groups as group (group.slug)}<option value="group:{group.slug}">a member of {group.name}</option>{/each}
			<option value="staff">staff</option>
		</select>
	</label>
	<span class="ml-auto flex gap-1">
		<a class="pill" class:on={!phone} href={address({ on: 'wide' })}>Wide</a>
		<a class="pill" class:on={phone} href={address({ on: 'phone' })}>Phone</a>
	</span>
</div>
<div class="stage" class:phone>
	<SiteFrame name={data.site.name} navigation={data.navigation} current={data.draft.path}>
		{#if data.page}
			<article class="prose-page">
				<h1>{data.page.title}</h1>
				<Content nodes={data.page.content.content ?? []} placements={data.page.placements} />
			</article>
		{:else}
			<p class="trouble">They would be turned away from this page: its door does not admit them.</p>
		{/if}
	</SiteFrame>
</div>

<style>
	.bar {
		position: sticky;
		top: 0;
		z-index: 20;
		display: flex;
		flex-wrap: wrap;
		gap: 8px 14px;
		align-items: center;
		padding: 9px 18px;
		background: var(--brass-wash);
		border-bottom: 1px solid var(--brass-bright);
	}
	.bar strong {
		font: 600 17px var(--title);
		color: var(--brass);
	}
	.bar select {
		height: 34px;
		padding: 0 30px 0 8px;
		font-size: 14px;
	}
	.stage.phone {
		max-width: 390px;
		margin: 18px auto;
		border: 1px solid var(--edge);
	}
	article {
		max-width: 720px;
	}
	h1 {
		font-size: clamp(26px, 5vw, 36px);
	}
</style>
