<script lang="ts">
	import { dayText } from '$lib/ui/parts/when';
	import SiteFrame from '$lib/ui/placing/SiteFrame.svelte';
	import DocumentList from '$lib/ui/documents/DocumentList.svelte';
	let { data } = $props();
</script>

<svelte:head><title>{data.me?.name}, {data.site.name}</title></svelte:head>
<SiteFrame name={data.site.name} navigation={data.navigation} current="/me" me={data.me}>
	<div class="head">
		<h1>{data.me?.name}</h1>
		<form method="POST" action="/sign-in?/out"><button class="btn">Sign out</button></form>
	</div>
	<p class="soft">{data.me?.email}</p>
	{#if data.memberships.length}
		<h2>Your memberships</h2>
		<ul>
			{#each data.memberships as m (m.group)}<li>
					{m.group}{m.current ? '' : ', not current'}{m.until ? `, until ${dayText(`${m.until}T00:00Z`, 'UTC')}` : ''}
				</li>{/each}
		</ul>
	{/if}
	<h2>What you may read</h2>
	{#if data.documents.length}<DocumentList documents={data.documents} />{:else}<p class="soft">Nothing at the moment.</p>{/if}
</SiteFrame>

<style>
	.head {
		display: flex;
		justify-content: space-between;
		gap: 12px;
		flex-wrap: wrap;
	}
	h2 {
		font-size: 19px;
		margin: 26px 0 4px;
	}
</style>
