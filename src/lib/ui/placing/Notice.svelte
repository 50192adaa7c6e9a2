<!-- The site's notice: a line on every page until its last day. -->
<script lang="ts">
	import { page } from '$app/state';
	import type { Language } from '#core/words/words';
	import { dayText } from '$lib/ui/parts/when';
	import { words } from '$lib/ui/parts/words';
	import type { SiteLook } from '$lib/server/site/site';
	let { notice, own }: { notice: NonNullable<SiteLook['notice']>; own: { lang?: string; dir?: 'ltr' | 'rtl' } } = $props();
	const language = $derived((page.data.language as Language | undefined) ?? 'en');
</script>

<div class="notice">
	<p class="wrap" role="note">
		<svg viewBox="0 0 24 27" aria-hidden="true"
			><path d="M2 26V12a10 10 0 0 1 20 0v14z" fill="none" stroke="currentColor" stroke-width="2" /><path
				d="M12 9v8m0 3v2"
				stroke="currentColor"
				stroke-width="2.4"
			/></svg
		>
		<span {...own}
			>{#if notice.path}<a href={notice.path}>{notice.words}</a>{:else}{notice.words}{/if}</span
		>
		{#if notice.until}<span class="until">{words('until', { day: dayText(notice.until, 'UTC', Date.now(), language) })}</span>{/if}
	</p>
</div>

<style>
	.notice {
		background: var(--brick-wash);
		border-block: 1px solid var(--brick);
		border-top-width: 3px;
	}
	p {
		display: grid;
		grid-template-columns: 26px 1fr auto;
		gap: 2px 12px;
		align-items: center;
		padding-block: 13px;
		font-size: 17px;
	}
	svg {
		width: 24px;
		height: 27px;
		color: var(--brick);
	}
	span {
		font-weight: 600;
	}
	a {
		color: var(--ink);
	}
	.until {
		font-weight: 400;
	}
	@media (max-width: 759px) {
		.until {
			grid-column: 2;
			font-size: 15px;
		}
	}
</style>
