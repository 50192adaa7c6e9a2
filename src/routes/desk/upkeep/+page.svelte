<!-- Upkeep: one list, worst first, each line with its remedy on it. -->
<script lang="ts">
	import { Button } from '$lib/ui/parts/controls';
	import { goto } from '$app/navigation';
	import { refresh } from '$lib/ui/parts/refresh';
	import { dayOf } from '#core/access/hours';
	import { counted } from '#core/text/list';
	import type { UpkeepLine } from '#core/upkeep/upkeep';
	import Mismatch from '$lib/ui/placing/Mismatch.svelte';
	import { mendMismatch } from '$lib/ui/placing/writer.svelte';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import { dayText } from '$lib/ui/parts/when';

	let { data } = $props();
	let busy = $state('');
	let shownMismatches = $state(20);

	const heads = {
		'cannot-be-shown': 'Cannot be shown',
		'source-gone': 'Source gone',
		'source-changed': 'Source changed',
		'active-content': 'Active content',
		'source-unreachable': 'Source not reached',
		'review-due': 'To be looked at',
		'set-aside': 'Set aside'
	} as const;
	interface Remedy {
		readonly words: string;
		readonly main?: boolean;
		readonly do: (slug: string) => Promise<unknown>;
		readonly done: string;
		readonly undo?: (slug: string) => Promise<unknown>;
	}
	const source = (what: 'take' | 'leave' | 'compare') => (slug: string) => call('post /documents/{slug}/source', { path: { slug }, body: { do: what } });
	/** Fetches the changed file and leads to both beside each other. */
	async function beside(slug: string) {
		const { source: now, editions } = await call('post /documents/{slug}/source', { path: { slug }, body: { do: 'beside' } });
		// one always is in force
		if (now?.beside) await goto(`/desk/documents/${slug}/compare?before=${editions.find((e) => e.inForce)!.number}&after=${now.beside}`);
	}
	/** Today next year, in the site's zone. */
	const inAYear = () => dayOf(Date.now() + 365 * 86_400_000, data.site.zone);
	/** The day by which it is to be looked at again; who does stays. */
	async function review(slug: string, on: string | null) {
		const { review: was } = await call('get /documents/{slug}', { path: { slug } });
		return call('patch /documents/{slug}', { path: { slug }, body: { review: on === null ? null : { on, by: was?.by } } });
	}
	const remedies: Partial<Record<UpkeepLine['kind'], readonly Remedy[]>> = {
		'source-changed': [
			{ words: 'Take as new edition', main: true, do: source('take'), done: 'Taken as the new edition.' },
			{ words: 'See what changed', do: beside, done: '' },
			{ words: 'Leave it', do: source('leave'), done: 'Left as it is; the next change is offered again.' }
		],
		'source-gone': [
			{ words: 'Stop watching', do: (slug) => call('patch /documents/{slug}/source', { path: { slug }, body: { watch: false } }), done: 'No longer watched.' },
			{ words: 'Look again', do: source('compare'), done: '' }
		],
		'source-unreachable': [{ words: 'Look again', do: source('compare'), done: '' }],
		'active-content': [
			{
				words: 'Make a cleaned edition',
				do: (slug) => call('post /documents/{slug}/clean', { path: { slug } }),
				done: 'Cleaned; the original is kept as the edition before.'
			}
		],
		'review-due': [
			{ words: 'Looked at: again in a year', main: true, do: (slug) => review(slug, inAYear()), done: 'Looked at; it is told of again in a year.' },
			{ words: 'Not any more', do: (slug) => review(slug, null), done: 'It is not told of any more.' }
		],
		'set-aside': [
			{
				words: 'Restore',
				do: (slug) => call('post /documents/{slug}/restore', { path: { slug } }),
				done: 'Restored, with its door, its placements and its history.',
				undo: (slug) => call('delete /documents/{slug}', { path: { slug } })
			}
		]
	};

	async function mend(line: UpkeepLine, remedy: Remedy) {
		busy = line.slug + line.kind;
		const back = remedy.undo;
		await act(remedy.done && `“${line.title}”: ${remedy.done}`, () => remedy.do(line.slug), back ? () => back(line.slug) : null);
		busy = '';
	}
</script>

<svelte:head><title>Upkeep, {data.site.name}</title></svelte:head>
<div class="hall">
	<div class="top">
		<h1>Upkeep</h1>
		<Button class="ml-auto" href="/desk/upkeep/trail">Who changed what</Button>
		<Button href="/desk/upkeep/former">Former addresses</Button>
		{#if data.me.owner}<Button href="/desk/upkeep/messages">Messages to programs</Button>{/if}
		<Button href="/desk/upkeep/copies">Whose copy is this?</Button>
	</div>
	<p class="say">
		{data.lines.length + data.mismatches.length
			? `${counted(data.lines.length + data.mismatches.length, 'thing needs', 'things need')} a hand, the worst first.`
			: 'Nothing needs a hand: every document can be shown and opens where it is placed, and every watched source is as it was.'}
		{#if data.knocks}<a href="/desk/people/knocks">{counted(data.knocks, 'knock waits', 'knocks wait')}</a> for an answer.{/if}
		{#if data.look}
			<a href="/desk/documents?condition=look">{counted(data.look, 'document is', 'documents are')} worth a look</a> for other reasons.
		{/if}
	</p>
	{#if data.stopped}<p class="trouble">
			<strong>The sweep of the store has stopped.</strong>
			{counted(data.stopped.strays, 'file', 'files')} of {data.stopped.of.toLocaleString('en-GB')} have no row in the database, which is more than can be right. Nothing
			was touched. Look whether this is the right database, or one from an older backup; once the two fit together again, the sweep goes on by itself.
		</p>{/if}
	{#each data.told as words (words)}<p class="trouble">{words} <a href="/desk/help/upkeep">What there is to do</a>.</p>{/each}
	{#each data.silent as hook (hook.id)}<p class="trouble">
			What happens does not reach {hook.url}: {hook.ended ?? hook.trouble}. {#if data.me.owner}<a href="/desk/upkeep/messages?to={hook.id}"
					>Look at its messages</a
				>.{:else}An owner can look at its messages.{/if}
		</p>{/each}
	{#if data.mismatches.length}
		<div class="mismatches">
			{#each data.mismatches.slice(0, shownMismatches) as found (found.kind + found.page + found.placement)}
				<Mismatch {found} zone={data.site.zone} mend={(remedy, why) => void mendMismatch(found, remedy, why, refresh)} />
			{/each}
			{#if data.mismatches.length > shownMismatches}<Button onclick={() => (shownMismatches += 50)}
					>{counted(data.mismatches.length - shownMismatches, 'more', 'more')}</Button
				>{/if}
		</div>
	{/if}
	{#if data.lines.length}
		<ul>
			{#each data.lines as line (line.slug + line.kind)}
				<li class={line.kind}>
					<div class="what">
						<p>
							<b>{heads[line.kind]}</b>
							<a
								href="/desk/documents/{line.slug}#in"
								onclick={(e) => {
									e.preventDefault();
									void goto(`/desk/documents/${line.slug}#in`);
								}}>{line.title}</a
							>{#if line.pages}<span class="soft">on {counted(line.pages, 'published page', 'published pages')}</span>{/if}
						</p>
						<p class="soft">
							{line.text}
							{line.kind === 'review-due' ? `By ${dayText(new Date(line.at).toISOString(), data.site.zone)}.` : ''}
							{line.kind === 'set-aside' ? `Until ${dayText(new Date(line.at).toISOString(), data.site.zone)}.` : ''}
						</p>
					</div>
					<div class="do">
						{#each remedies[line.kind] ?? [] as remedy (remedy.words)}
							<Button class={{ main: remedy.main }} disabled={busy !== ''} onclick={() => mend(line, remedy)}
								>{busy === line.slug + line.kind ? 'A moment…' : remedy.words}</Button
							>
						{:else}<Button href="/desk/documents/{line.slug}#in">Open its sheet</Button>{/each}
					</div>
				</li>
			{/each}
		</ul>
	{/if}
</div>

{#if data.intended.length}
	<details class="meant">
		<summary>{counted(data.intended.length, 'side door is', 'side doors are')} meant to be</summary>
		{#each data.intended as found (found.page + found.placement)}
			<Mismatch {found} zone={data.site.zone} mend={(remedy, why) => void mendMismatch(found, remedy, why, refresh)} />
		{/each}
	</details>
{/if}

<style>
	.mismatches {
		display: grid;
		gap: 8px;
		margin-bottom: 14px;
	}
	.meant {
		max-width: 1080px;
		padding: 0 18px 40px;
	}
	.top {
		display: flex;
		align-items: baseline;
		gap: 10px;
	}
	.hall {
		max-width: 1080px;
		padding: 16px 18px 40px;
	}
	.say {
		margin: 8px 0 14px;
	}
	ul {
		border: 1px solid var(--line);
		background: var(--sheet);
	}
	li {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 20px;
		align-items: center;
		padding: 11px 14px 11px 12px;
		border-left: 4px solid var(--brass-bright);
	}
	li + li {
		border-top: 1px solid var(--line);
	}
	li.cannot-be-shown {
		border-left-color: var(--brick);
	}
	li.set-aside {
		border-left-color: var(--line);
	}
	.what {
		flex: 1 1 420px;
		min-width: 0;
	}
	.what p:first-child {
		display: flex;
		flex-wrap: wrap;
		gap: 2px 10px;
		align-items: baseline;
	}
	b {
		flex: 0 0 138px;
		font-weight: 600;
	}
	.cannot-be-shown b {
		color: var(--brick);
	}
	.what a {
		font: 600 15px var(--title);
		color: var(--ink);
	}
	.what .soft:last-child {
		margin-top: 3px;
	}
	.do {
		display: flex;
		gap: 8px;
	}
</style>
