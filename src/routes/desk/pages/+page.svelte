<script lang="ts">
	import { counted } from '#core/access/reach';
	import Arch from '$lib/ui/parts/Arch.svelte';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	import { dayText } from '$lib/ui/parts/when';
	let { data, form } = $props();
	const href = (id: string) => `/desk/pages/${id}${data.place ? `?place=${encodeURIComponent(data.place)}` : ''}`;
	const stands = (p: (typeof data.pages)[number]) =>
		p.published ? (p.changed ? 'Published, changed since' : `Published ${dayText(p.publishedAt!, data.site.zone)}`) : 'Draft';
</script>

<svelte:head><title>Pages, {data.site.name}</title></svelte:head>
<section class="hall">
	<div class="head">
		<h1>Pages</h1>
		<p class="soft">{counted(data.pages.length, 'page', 'pages')}</p>
	</div>
	{#if data.place}<p class="say mb-3">Choose the page on which “{data.place}” is to stand, or write a new one.</p>{/if}
	{#if form?.trouble}<p class="trouble mb-3" role="alert">{form.trouble}</p>{/if}
	<form method="POST" class="new">
		<label>Title <input class="field" name="title" required maxlength="200" placeholder="Give a day to the canal" value={form?.title ?? ''} /></label>
		<label>Path <input class="field" name="path" maxlength="200" placeholder="made from the title" value={form?.path ?? ''} /></label>
		<button class="btn main">Write a page</button>
	</form>
	{#if data.pages.length}
		<table class="rows">
			<thead><tr><th>Page</th><th>Written, door, published</th><th>Door</th><th>Documents placed</th><th>Draft saved</th></tr></thead>
			<tbody>
				{#each data.pages as p (p.id)}
					<tr>
						<td><a href={href(p.id)}>{p.title}</a><small>{p.path}</small></td>
						<td
							><span class="way"
								><Arch state="done" /><Arch state={p.door.position === 'shut' ? 'to-do' : 'done'} /><Arch state={p.published ? 'done' : 'to-do'} /></span
							><small class="beside">{stands(p)}</small></td
						>
						<td><span class="door" title={p.door.sentence}><DoorMark position={p.door.position} />{p.door.who}</span></td>
						<td>{p.placements || ''}</td>
						<td>{dayText(p.draftAt, data.site.zone)}</td>
					</tr>
				{/each}
			</tbody>
		</table>
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
	.new .field {
		width: 260px;
	}
	.new .btn {
		height: 36px;
	}
	td {
		border-top: 1px solid var(--line);
		padding: 8px 12px;
		height: 54px;
	}
	td a {
		font: 600 14.5px var(--title);
		color: var(--ink);
		text-decoration: none;
	}
	td a:hover {
		text-decoration: underline;
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
