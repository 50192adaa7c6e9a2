<script lang="ts">
	import { Button, Checkbox, Input, Select } from '$lib/ui/parts/controls';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { goto } from '$app/navigation';
	import { counted } from '#core/text/list';
	import { layouts, layoutWords } from '#core/placing/content';
	import { patternNames, patterns } from '#core/placing/patterns';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import Arch from '$lib/ui/parts/Arch.svelte';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	import { dayText } from '$lib/ui/parts/when';
	let { data, form } = $props();
	const href = (id: string) => `/desk/pages/${id}${data.place ? `?place=${encodeURIComponent(data.place)}` : ''}`;
	let q = $state('');
	/** What a new page begins with: `like <path>` of another, `as <pattern>`, '' for nothing. */
	let begins = $derived(form?.begins ?? (data.like ? `like ${data.like}` : ''));
	const like = $derived(begins.startsWith('like '));
	let title = $state<HTMLInputElement>();
	$effect(() => {
		if (data.like) title?.focus();
	});
	const shown = $derived(data.pages.filter((p) => `${p.title} ${p.path}`.toLowerCase().includes(q.trim().toLowerCase())));
	const stands = (p: (typeof data.pages)[number]) =>
		p.publishAt
			? `Goes out ${dayText(p.publishAt, data.site.zone)}`
			: p.published
				? p.changed
					? 'Published, changed since'
					: ['Published', p.publishedAt && dayText(p.publishedAt, data.site.zone)].filter(Boolean).join(' ')
				: 'Draft';
</script>

<svelte:head><title>Pages, {data.site.name}</title></svelte:head>
<section class="hall">
	<div class="head">
		<h1>Pages</h1>
		<p class="soft">{counted(data.pages.length, 'page', 'pages')}</p>
		{#if data.pages.length > 3}<Input
				class="ml-auto"
				type="search"
				placeholder="Part of a title or path"
				aria-label="Find a page"
				bind:value={q}
				onkeydown={(e) => {
					if (e.key === 'Enter' && shown[0]) void goto(href(shown[0].id));
				}}
			/>{/if}
	</div>
	{#if data.place}<p class="say mb-3">Choose the page on which “{data.place}” is to stand, or write a new one.</p>{/if}
	{#if form?.trouble}<p class="trouble mb-3" role="alert">{form.trouble}</p>{/if}
	<form method="POST" class="new">
		<label>Title <Input bind:elementRef={title} name="title" required maxlength={200} placeholder="What the page is called" value={form?.title ?? ''} /></label>
		<label>Path <Input name="path" maxlength={200} placeholder="made from the title" value={form?.path ?? ''} /></label>
		<label
			>Begins
			<Select class="like" name="begins" bind:value={begins}>
				<option value="">empty</option>
				<optgroup label="With headings to fill in">
					{#each patterns as pattern (pattern)}<option value="as {pattern}">{patternNames[pattern]}</option>{/each}
				</optgroup>
				{#if data.pages.length}
					<optgroup label="Like a page">
						{#each data.pages as p (p.id)}<option value="like {p.path}">like “{p.title}”</option>{/each}
					</optgroup>
				{/if}
			</Select></label
		>
		{#if !begins}
			<label
				>Layout
				<Select class="layout" name="layout" value={form?.layout ?? 'article'}>
					{#each layouts as layout (layout)}<option value={layout}>{layoutWords[layout]}</option>{/each}
				</Select></label
			>
		{/if}
		<label
			>For
			<Select class="for" name="door" value={form?.door ?? ''}>
				{#if like}<option value="">whom that page is for</option>{/if}
				<option value={like ? 'open' : ''}>everyone</option>
				<option value="members">all members</option>
				{#each data.groups as group (group.slug)}<option value="group:{group.slug}">{group.name}</option>{/each}
				<option value="shut">staff only, for now</option>
			</Select></label
		>
		<Checkbox name="inNavigation" checked={form?.inNavigation ?? false}>In the navigation</Checkbox>
		<Button type="submit" kind="main">Write a page</Button>
	</form>
	{#if data.pages.length}
		<Table class="rows">
			<TableHead
				><TableHeadCell>Page</TableHeadCell><TableHeadCell>Layout</TableHeadCell><TableHeadCell>Written, door, published</TableHeadCell><TableHeadCell
					>Door</TableHeadCell
				><TableHeadCell>Documents placed</TableHeadCell><TableHeadCell>Draft saved</TableHeadCell><TableHeadCell
					><span class="sr-only">Copy</span></TableHeadCell
				></TableHead
			>
			<TableBody>
				{#each shown as p (p.id)}
					<TableBodyRow>
						<TableBodyCell><a href={href(p.id)}>{p.title}</a><small>{p.path}</small></TableBodyCell>
						<TableBodyCell>{layoutWords[p.layout]}</TableBodyCell>
						<TableBodyCell
							><span class="way"
								><Arch state="done" /><Arch state={data.deadEnds[p.id] ? 'wrong' : p.door.position === 'shut' ? 'to-do' : 'done'} /><Arch
									state={p.published ? 'done' : 'to-do'}
								/></span
							><small class="beside">{stands(p)}</small></TableBodyCell
						>
						<TableBodyCell><span class="door" title={p.door.sentence}><DoorMark position={p.door.position} />{p.door.who}</span></TableBodyCell>
						<TableBodyCell
							>{#if p.placements}{p.placements}{:else}<span class="soft">{p.layout === 'catalogue' ? 'by folder or topic' : 'none'}</span
								>{/if}{#if data.deadEnds[p.id]}<small class="wrong">{counted(data.deadEnds[p.id]!, 'dead end', 'dead ends')}</small>{/if}</TableBodyCell
						>
						<TableBodyCell>{dayText(p.draftAt, data.site.zone)}</TableBodyCell>
						<TableBodyCell><a class="quiet copy" href="/desk/pages?like={encodeURIComponent(p.path)}">Copy</a></TableBodyCell>
					</TableBodyRow>
				{/each}
			</TableBody>
		</Table>
		{#if !shown.length}<p class="soft mt-3">No page is called that.</p>{/if}
		{#if data.aside.length}
			<details class="aside">
				<summary>{counted(data.aside.length, 'page is', 'pages are')} set aside</summary>
				<ul>
					{#each data.aside as p (p.id)}
						<li class="flex gap-3 items-center py-1">
							<span>{p.title}</span><span class="soft">{p.path}, {p.setAsideAt ? dayText(p.setAsideAt, data.site.zone) : ''}</span>
							<Button onclick={() => act(`“${p.title}” is restored.`, () => call('post /pages/{path}/restore', { path: { path: p.path } }))}>Restore</Button>
						</li>
					{/each}
				</ul>
			</details>
		{/if}
	{:else}
		<div class="empty">
			<h2>Write the first page</h2>
			<p class="soft">The page at the path / is the site’s front page.</p>
		</div>
	{/if}
</section>

<style>
	.hall {
		padding: 16px 18px;
	}
	.head {
		display: flex;
		align-items: baseline;
		gap: 12px;
		margin-bottom: 12px;
	}
	.new {
		display: flex;
		flex-wrap: wrap;
		gap: 10px 14px;
		align-items: end;
		margin-bottom: 14px;
	}
	.new label {
		display: flex;
		flex-direction: column;
		gap: 3px;
		font-size: 12px;
		color: var(--ink-soft);
	}
	.new :global(.field) {
		width: 260px;
	}
	.new :global(.btn) {
		height: 36px;
	}
	.hall :global(td) {
		border-top: 1px solid var(--line);
		padding: 8px 12px;
		height: 54px;
	}
	.hall :global(td a) {
		font: 600 14.5px var(--title);
		color: var(--ink);
		text-decoration: none;
	}
	.hall :global(td a.copy) {
		font: 400 13px var(--body);
		color: var(--verdigris);
	}
	.hall :global(td a:hover) {
		text-decoration: underline;
	}
	.new :global(.layout),
	.new :global(.like) {
		width: 150px;
		padding-right: 28px;
	}
	.new :global(.like) {
		width: 230px;
	}
	.new :global(label:has([type='checkbox'])) {
		height: 36px;
	}
	small.wrong {
		color: var(--brick);
	}
	.aside {
		margin-top: 22px;
	}
	small {
		display: block;
		font-size: 12px;
		color: var(--ink-soft);
	}
	.way {
		display: inline-flex;
		gap: 2px;
		vertical-align: middle;
	}
	.beside {
		display: inline;
		margin-left: 8px;
	}
	.door {
		display: flex;
		align-items: center;
		gap: 8px;
	}
	.empty {
		border: 1px dashed var(--edge);
		padding: 40px;
		text-align: center;
		background: var(--sheet);
	}
</style>
