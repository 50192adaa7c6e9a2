<script lang="ts">
	import { Button, Input, Select } from '$lib/ui/parts/controls';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import SitePage from '$lib/ui/placing/SitePage.svelte';
	import { stay } from '$lib/ui/placing/stay';
	let { data } = $props();
	const widths = { wide: 'Wide', tablet: 'Tablet', phone: 'Phone' } as const;
	const on = $derived((page.url.searchParams.get('on') ?? 'wide') as keyof typeof widths);
	function address(change: Record<string, string>) {
		const params = new URLSearchParams(page.url.searchParams);
		for (const [k, v] of Object.entries(change)) params.set(k, v);
		return `?${params}`;
	}
	let person = $state('');
</script>

<svelte:head><title>Preview: {data.draft.title}</title></svelte:head>
{#if !page.url.searchParams.has('bare')}
	<div class="bar">
		<Button href="/desk/pages/{data.draft.id}">Back to writing</Button>
		<strong>{data.revision ? `Revision ${data.revision}` : 'Preview'}</strong>
		<label
			>as
			<Select
				value={data.as.startsWith('member:') ? 'person' : data.as}
				onchange={(e) => (e.currentTarget.value === 'person' ? (person = ' ') : goto(address({ as: e.currentTarget.value })))}
			>
				<option value="visitor">a visitor</option>
				{#each data.groups as group (group.slug)}<option value="group:{group.slug}">a member of {group.name}</option>{/each}
				<option value="person">a given person…</option>
				<option value="staff">staff</option>
			</Select>
		</label>
		{#if person || data.as.startsWith('member:')}
			<form
				onsubmit={(e) => {
					e.preventDefault();
					void goto(address({ as: `member:${person.trim()}` }));
				}}
			>
				<Input
					type="email"
					required
					aria-label="E-mail address of the person"
					placeholder="name@example.org"
					value={person.trim() || data.as.slice(7)}
					oninput={(e) => (person = e.currentTarget.value || ' ')}
				/>
			</form>
		{/if}
		<span class="ml-auto flex gap-1">
			{#each Object.entries(widths) as [width, words] (width)}<Button kind="pill" class={{ on: on === width }} href={address({ on: width })}>{words}</Button
				>{/each}
		</span>
	</div>
{/if}
{#if data.trouble}<p class="trouble m-3" role="alert">{data.trouble}</p>{/if}
{#if on !== 'wide'}
	<!-- a frame of that width, so that all stands as it does on such a screen -->
	<iframe class={on} title="The page on a {on}" src={address({ on: 'wide', bare: '' })}></iframe>
{:else}
	<div {@attach stay(() => ({ as: data.as, pages: data.pages, framed: page.url.searchParams.has('bare') }))}>
		<SitePage
			site={data.site}
			page={data.page}
			navigation={data.navigation}
			current={data.draft.path}
			front={data.front}
			reading={data.reading}
			query={data.query}
		>
			{#snippet otherwise()}<p class="trouble">They would be turned away from this page: its door does not admit them.</p>{/snippet}
		</SitePage>
	</div>
{/if}

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
	.bar :global(.field) {
		height: 34px;
		padding: 0 30px 0 8px;
		font-size: 14px;
	}
	iframe {
		display: block;
		width: 392px;
		max-width: 100%;
		height: min(846px, calc(100dvh - 100px));
		margin: 18px auto;
		border: 1px solid var(--edge);
	}
	iframe.tablet {
		width: 822px;
		height: calc(100dvh - 100px);
	}
</style>
