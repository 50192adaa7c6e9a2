<!-- A page of the site with all that stands around it: the same for its readers and in a preview. -->
<script lang="ts">
	import type { ComponentProps, Snippet } from 'svelte';
	import { placementsOf, type Article } from '#core/placing/content';
	import { partsOf } from '#core/placing/parts';
	import type { Language } from '#core/words/words';
	import { page as address } from '$app/state';
	import type { SeenPage } from '$lib/server/placing/page-view';
	import type { SiteLook } from '$lib/server/site/site';
	import PageBody from './PageBody.svelte';
	import SiteFrame from './SiteFrame.svelte';
	interface Props extends Pick<ComponentProps<typeof SiteFrame>, 'navigation' | 'current' | 'me' | 'desk'> {
		site: SiteLook & { language?: Language | null };
		/** Null where somebody would be turned away. */
		page: SeenPage | null;
		front: boolean;
		reading?: string | null;
		query?: string;
		/** What stands in the page's place. */
		otherwise?: Snippet;
	}
	let { site, page, front, reading = null, query = '', otherwise, ...around }: Props = $props();
	const body = $derived(page?.body);
	const parts = $derived(body?.layout === 'article' ? partsOf(body.content) : null);
	const spoken = $derived((page && (page.language ?? site.language)) || ((address.data.language as Language | undefined) ?? null));
	/** Something of an article is wider than its words, or stands beside them. */
	const isWide = $derived(
		parts !== null &&
			body?.layout === 'article' &&
			(parts.rest
				.flatMap((node) => (node.type === 'band' ? (node.content ?? []) : [node]))
				.some(({ type, attrs }) => type === 'cards' || (type === 'picture' && attrs?.align === 'wide')) ||
				placementsOf(body.content as Article).some(({ id, form }) => {
					const seen = body.placements[id];
					return form === 'cover' && seen?.state === 'open' && seen.view.align === 'right';
				}))
	);
	/** Nothing stands beside an article that has few headings. */
	const narrow = $derived(!front && (body?.layout === 'pocket' || (parts !== null && parts.headings.length <= 2 && !isWide)));
</script>

<SiteFrame
	{site}
	{...around}
	title={page?.title}
	lead={parts ? parts.lead : body && body.layout !== 'article' ? body.lead : undefined}
	{spoken}
	{front}
	{narrow}
>
	{#if page}<PageBody {page} {parts} {reading} {query} />{:else}{@render otherwise?.()}{/if}
</SiteFrame>
