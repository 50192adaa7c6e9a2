<!-- What is kept for some, of which everyone may know: below a list, each behind its door. -->
<script lang="ts">
	import type { SeenList } from '$lib/server/placing/contract';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	import { words } from '$lib/ui/parts/words';
	let { documents, covers = false }: { documents: SeenList['announced']; /** Whether they stand on a line, as the covers above do. */ covers?: boolean } =
		$props();
</script>

<section class="kept-for-some" aria-label={words('keptForSome')}>
	<h2>{words('keptForSome')}</h2>
	<ul class:covers>
		{#each documents as document (document.slug)}
			<li class="listed">
				<a class="door" href="/d/{document.slug}" tabindex="-1" aria-hidden="true"><DoorMark position="keyed" height={covers ? 150 : 64} /></a>
				<div>
					<h3><a href="/d/{document.slug}">{document.title}</a></h3>
					{#if document.description}<p>{document.description}</p>{/if}
					<p class="soft">{document.who}{document.needsSignIn ? ` · ${words('signIn')}` : ''}</p>
				</div>
			</li>
		{/each}
	</ul>
</section>

<style>
	section {
		margin-top: 30px;
	}
	h2 {
		font-size: 21px;
	}
	ul {
		margin-top: 10px;
		padding: 0;
		list-style: none;
		border-top: 3px solid var(--ledge, var(--ink));
	}
	li {
		display: grid;
		grid-template-columns: 56px minmax(0, 1fr);
		gap: 2px 18px;
		align-items: start;
		padding: 14px 0;
		border-bottom: 1px solid var(--line);
	}
	.door {
		display: flex;
		justify-content: center;
		color: var(--ledge, var(--ink));
	}
	.covers {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(148px, 1fr));
		row-gap: 28px;
		border: 0;
	}
	.covers li {
		display: block;
		padding: 0;
		border: 0;
	}
	.covers .door {
		align-items: flex-end;
		justify-content: flex-start;
		height: 190px;
		margin-bottom: 10px;
		border-bottom: 3px solid var(--ledge, var(--ink));
	}
	.covers div {
		padding-inline-end: 16px;
	}
	h3 {
		font-size: 19px;
	}
	.soft {
		font-size: 15px;
	}
</style>
