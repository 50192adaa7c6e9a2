<!-- The sheet: in, door, placed, read. -->
<script lang="ts">
	import { Button } from '$lib/ui/parts/controls';
	import { page } from '$app/state';
	import { restorableUntil } from '#core/documents/aside';
	import BreakingQuestion from '$lib/ui/documents/BreakingQuestion.svelte';
	import { askFirst, carryOut, type Answer, type Breaking, type Question } from '$lib/ui/documents/breaking';
	import DoorStation from '$lib/ui/documents/sheet/DoorStation.svelte';
	import InStation from '$lib/ui/documents/sheet/InStation.svelte';
	import PlacedStation from '$lib/ui/documents/sheet/PlacedStation.svelte';
	import ReadStation from '$lib/ui/documents/sheet/ReadStation.svelte';
	import SheetHead from '$lib/ui/documents/sheet/SheetHead.svelte';
	import { act } from '$lib/ui/parts/act';
	import { call, type Given } from '$lib/ui/parts/api';
	import { goWith, refresh } from '$lib/ui/parts/refresh';
	import { dayText } from '$lib/ui/parts/when';

	let { data } = $props();
	const view = $derived(data.view);
	const zone = $derived(data.site.zone);

	/** Changes the document; what was before is the server's to know. */
	const patch = (change: Given<'patch /documents/{slug}'>['body'], words: string) => {
		const { slug, title } = view;
		return act(
			`“${title}”: ${words}`,
			() => call('patch /documents/{slug}', { path: { slug }, body: change }),
			({ before }) => call('patch /documents/{slug}', { path: { slug }, body: before })
		);
	};

	/** Goes to another sheet, or to none, with the list as it is by then. */
	const goTo = (sheet: string) => goWith(`/desk/documents${sheet}${page.url.search}`, ['documents', 'document'], { noScroll: true });
	let question = $state<Question | null>(null);
	/** Changes what readers may meet on pages, asked about first; `final` where placements go too, which undoing does not bring back. */
	function press(change: Breaking, work: () => Promise<Answer>, final = false) {
		const { slug, title } = view;
		const aside = 'aside' in change;
		return act(
			({ asks }) => (asks ? '' : aside ? `“${title}” is set aside. It can be restored for 30 days.` : `Door of “${title}” set.`),
			work,
			final ? null : ({ undo }) => call('post /bulk/undo', { body: { undo } }),
			{
				show: async ({ asks, elsewhere }, undone) => {
					if (asks) question = { documents: [slug], change, places: asks, elsewhere: elsewhere ?? [] };
					else if (aside) await goTo(undone ? `/${slug}` : '');
					else await refresh();
				}
			}
		);
	}
	const ask = (change: Breaking) => press(change, () => askFirst([view.slug], change));
	const restore = () =>
		act(`“${view.title}” is back, with its door, its placements and its history.`, () => call('post /documents/{slug}/restore', { path: { slug: view.slug } }));

	const checking = $derived(view.condition.status === 'checking' || view.editions.some((e) => e.pending));
	// a check goes on: look again until it is done, and then at the list
	$effect(() => {
		if (!checking) return;
		const clock = setInterval(async () => {
			await refresh('document');
			if (!checking) await refresh('documents');
		}, 1000);
		return () => clearInterval(clock);
	});
</script>

<svelte:head><title>{view.title}, {data.site.name}</title></svelte:head>

<BreakingQuestion bind:question go={(asked, takeOut) => void press(asked.change, () => carryOut(asked, takeOut), takeOut.length > 0)} />
<aside class="sheet" aria-label={view.title} data-edition-of={view.slug} data-edition-title={view.title}>
	<a class="close" href="/desk/documents{page.url.search}" aria-label="Close the sheet" data-sveltekit-noscroll>×</a>
	{#if view.setAsideAt}
		<p class="trouble mb-3">
			Set aside {dayText(view.setAsideAt, zone)}. Readers find nothing here. It can be restored until {dayText(
				new Date(restorableUntil(Date.parse(view.setAsideAt))).toISOString(),
				zone
			)}. <Button class="ml-2" onclick={restore}>Restore</Button>
		</p>
	{/if}
	<SheetHead {view} {goTo} {patch} folders={data.folders} topics={data.topics} fields={data.fields} staff={data.staff} {zone} />
	<InStation {view} {zone} maxUpload={data.maxUpload} />
	<DoorStation {view} {zone} groups={data.groups} allMembers={data.allMembers} keys={data.keys} pages={data.pages} change={(door) => void ask({ door })} />
	<PlacedStation
		{view}
		{zone}
		mismatches={data.mismatches}
		elsewhere={data.elsewhere}
		origin={data.origin}
		defaults={data.placing}
		framers={data.framers}
		owner={data.me.owner}
	/>
	<ReadStation
		{view}
		{zone}
		report={data.report}
		savers={data.savers}
		recent={data.recent}
		siteReading={data.siteReading}
		set={(reading) => void patch({ reading }, 'reading room set.')}
	/>
	{#if !view.setAsideAt}<p class="end"><Button kind="quiet" onclick={() => ask({ aside: true })}>Set this document aside</Button></p>{/if}
</aside>

<style>
	.sheet {
		background: var(--sheet);
		border-left: 1px solid var(--line);
		padding: 16px 20px 28px;
		overflow-y: auto;
		position: relative;
	}
	.close {
		position: absolute;
		right: 12px;
		top: 8px;
		font-size: 20px;
		text-decoration: none;
		color: var(--ink-soft);
		padding: 2px 8px;
	}
	.end {
		margin-top: 18px;
		padding-top: 10px;
		border-top: 1px solid var(--line);
	}
	@media (max-width: 1000px) {
		.sheet {
			border-left: 0;
		}
	}
</style>
