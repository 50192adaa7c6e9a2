<!-- A large archway with what stands before a door: signing in, a key, asking to be let in, nothing here. -->
<script lang="ts">
	import type { ComponentProps, Snippet } from 'svelte';
	import { page } from '$app/state';
	import type { Position } from '#core/access/door';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	import type { SiteLook } from '$lib/server/site/site';
	import SiteFrame from './SiteFrame.svelte';
	interface Props {
		heading: string;
		door?: Position;
		me?: ComponentProps<typeof SiteFrame>['me'];
		children: Snippet;
	}
	let { heading, door = 'keyed', me = (page.data.me as ComponentProps<typeof SiteFrame>['me']) ?? null, children }: Props = $props();
	const site = $derived((page.data.site as SiteLook | undefined) ?? { name: 'Ianua' });
</script>

<SiteFrame {site} {me} threshold>
	<div class="archway">
		<DoorMark position={door} height={74} />
		<h1>{heading}</h1>
		{@render children()}
	</div>
</SiteFrame>

<style>
	.archway {
		width: min(430px, 100%);
		min-height: min(560px, 70dvh);
		padding: 50px 44px 40px;
		border-radius: 215px 215px 0 0;
		background: var(--sheet);
		text-align: center;
		font-size: 17px;
		box-shadow:
			0 0 0 9px var(--wash),
			0 0 0 11px var(--ledge);
	}
	.archway > :global(svg) {
		margin: 0 auto 14px;
		color: var(--ledge);
	}
	h1 {
		font-size: 30px;
		overflow-wrap: anywhere;
		hyphens: auto;
	}
	.archway :global(:is(p, form)) {
		margin-top: 12px;
	}
	.archway :global(form) {
		text-align: start;
	}
	.archway :global(label) {
		display: block;
		margin-top: 12px;
		font-weight: 600;
		font-size: 16px;
	}
	.archway :global(label .field),
	.archway :global(form > .field) {
		display: block;
		width: 100%;
		margin-top: 4px;
		font: 400 17px var(--body);
	}
	.archway :global(input.field) {
		height: 48px;
	}
	.archway :global(.btn) {
		min-height: 48px;
		padding: 8px 22px;
		font-size: 17px;
	}
	.archway :global(form > .btn) {
		width: 100%;
		margin-top: 16px;
	}
	@media (max-width: 520px) {
		.archway {
			padding: 48px 26px 34px;
		}
	}
</style>
