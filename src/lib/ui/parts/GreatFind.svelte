<!-- The find in the lintel. Enter looks for the words in all documents; what is called so, of every kind, stands beneath while one types. -->
<script lang="ts">
	import { afterNavigate, goto } from '$app/navigation';
	import { page } from '$app/state';
	import type { Position } from '#core/access/door';
	import type { Found } from '$lib/server/find';
	import { request, troubleOf } from './api';
	import DoorMark from './DoorMark.svelte';
	import { screensFor } from './screens';

	let { isOwner, field = $bindable() }: { isOwner: boolean; field?: HTMLInputElement } = $props();

	interface Line {
		readonly title: string;
		readonly note: string;
		readonly href: string;
		readonly position?: Position;
	}
	const kindWords = { document: 'Documents', page: 'Pages', person: 'People', group: 'Groups' } as const;
	const kinds = ['document', 'page', 'person', 'group'] as const;
	/** Ms without a key before it is looked. */
	const pause = 200;

	const id = $props.id();
	let q = $state('');
	let found = $state.raw<readonly Found[]>([]);
	/** For which words that is. */
	let foundFor = $state('');
	/** Why it could not be looked. */
	let trouble = $state('');
	let open = $state(false);
	let marked = $state(-1);
	/** Of the handbook, fetched once something is looked for. */
	let topics = $state.raw<readonly Line[]>([]);
	let turn = 0;
	let timer: ReturnType<typeof setTimeout> | undefined;

	const words = $derived(q.trim());
	const groups: readonly { readonly title: string; readonly lines: readonly Line[] }[] = $derived(
		[
			...kinds.map((kind) => ({ title: kindWords[kind], lines: found.filter((f) => f.kind === kind) })),
			{ title: 'Screens', lines: screensFor(q, isOwner).slice(0, 6) },
			{
				title: 'Handbook',
				lines: topics
			}
		].filter(({ lines }) => lines.length)
	);
	const lines = $derived(groups.flatMap((group) => group.lines));
	const shown = $derived(open && words !== '' && (lines.length > 0 || foundFor === words));

	// the words of the list that is shown stand in the field, until others are typed
	afterNavigate(() => {
		q = page.url.pathname === '/desk/documents' ? (page.url.searchParams.get('q') ?? '') : '';
		[open, marked] = [false, -1];
	});

	function typed() {
		[open, marked] = [true, -1];
		clearTimeout(timer);
		const asked = ++turn;
		if (!words) {
			[found, foundFor, topics] = [[], '', []];
			return;
		}
		timer = setTimeout(async () => {
			const sought = words;
			const { items, said } = await request<{ items: Found[] }>('GET', `/desk/find?q=${encodeURIComponent(sought)}`).then(
				(answer) => ({ ...answer, said: '' }),
				(error: unknown) => ({ items: [], said: `It could not be looked. ${troubleOf(error)}` })
			);
			// without it there are no topics, which nobody misses who cannot reach the server
			const handbook = await import('$lib/ui/help/topics').catch(() => null);
			if (asked !== turn) return;
			[found, foundFor, trouble] = [items, sought, said];
			topics = (sought.length > 2 && handbook ? handbook.topicsFor(sought).slice(0, 3) : []).map(({ slug, title }) => ({
				title,
				note: '',
				href: `/desk/help/${slug}`
			}));
		}, pause);
	}
	function take(line: Line) {
		open = false;
		void goto(line.href);
	}
	function keys(event: KeyboardEvent) {
		const line = shown ? lines[marked] : undefined;
		if (event.key === 'ArrowDown') {
			open = true;
			marked = Math.min(lines.length - 1, marked + 1);
		} else if (event.key === 'ArrowUp') marked = Math.max(-1, marked - 1);
		else if (event.key === 'Enter' && line) take(line);
		else if (event.key === 'Escape' && open) open = false;
		else return;
		event.preventDefault();
	}
	$effect(() => {
		if (marked >= 0) document.getElementById(`${id}-${marked}`)?.scrollIntoView({ block: 'nearest' });
	});
</script>

<form
	class="find"
	action="/desk/documents"
	role="search"
	onsubmit={() => {
		clearTimeout(timer);
		turn++;
		open = false;
	}}
>
	<input
		bind:this={field}
		bind:value={q}
		name="q"
		type="search"
		placeholder="Find anything here"
		role="combobox"
		aria-label="Find documents"
		aria-expanded={shown}
		aria-describedby="{id}-how"
		aria-autocomplete="list"
		aria-controls="{id}-list"
		aria-activedescendant={shown && marked >= 0 ? `${id}-${marked}` : undefined}
		autocomplete="off"
		oninput={typed}
		onblur={() => (open = false)}
		onkeydown={keys}
	/>
	<kbd>/</kbd>
	<span class="sr-only" id="{id}-how">Enter finds words in documents; with the arrow keys one goes to what is called so.</span>
	<span class="sr-only" role="status">{shown ? trouble || (lines.length ? `${lines.length} called so` : 'Nothing is called so') : ''}</span>
	<!-- pressing a line leaves the focus in the field, so that the list stands until the press is done -->
	<div class="panel" id="{id}-list" role="listbox" tabindex="-1" aria-label="What is called so" hidden={!shown} onmousedown={(e) => e.preventDefault()}>
		{#each groups as group (group.title)}
			<div role="group" aria-label={group.title}>
				<b aria-hidden="true">{group.title}</b>
				{#each group.lines as line (line.href)}
					{@const at = lines.indexOf(line)}
					<a id="{id}-{at}" role="option" aria-selected={at === marked} href={line.href} tabindex="-1" onclick={() => (open = false)}>
						{#if line.position}<DoorMark position={line.position} height={16} />{/if}
						<span>{line.title}</span><small>{line.note}</small>
					</a>
				{/each}
			</div>
		{:else}{#if !trouble}<p class="soft">Nothing is called so.</p>{/if}{/each}
		{#if trouble}<p class="trouble">{trouble}</p>{/if}
		<p class="soft">Enter finds “{words}” in all documents, on their pages too.</p>
	</div>
</form>

<style>
	.find {
		margin-left: auto;
		align-self: center;
		display: flex;
		align-items: center;
		position: relative;
	}
	input {
		width: 100%;
		min-width: 0;
		height: 32px;
		padding: 0 30px 0 10px;
		background: #ffffff14;
		border: 1px solid #ffffff66;
		border-radius: var(--corner);
		color: inherit;
		font-size: 14px;
	}
	input::placeholder {
		color: var(--on-dark);
		opacity: 0.85;
	}
	kbd {
		position: absolute;
		right: 8px;
		font: 11px var(--body);
		border: 1px solid #ffffff66;
		border-radius: 2px;
		padding: 0 5px;
		pointer-events: none;
	}
	.panel {
		position: absolute;
		top: calc(100% + 6px);
		right: 0;
		width: min(420px, calc(100vw - 24px));
		max-height: min(70vh, 560px);
		overflow: auto;
		padding: 6px 0;
		background: var(--sheet);
		color: var(--ink);
		border: 1px solid var(--edge);
		border-radius: var(--corner);
		box-shadow: 0 8px 28px rgb(0 0 0 / 24%);
	}
	b {
		display: block;
		padding: 8px 12px 2px;
		font: 600 12px var(--body);
		color: var(--ink-soft);
	}
	a {
		display: flex;
		gap: 8px;
		align-items: baseline;
		padding: 5px 12px;
		color: inherit;
		text-decoration: none;
	}
	a :global(svg) {
		flex: none;
		align-self: center;
	}
	a span {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	a small {
		margin-left: auto;
		flex: none;
		max-width: 45%;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
		color: var(--ink-soft);
	}
	a[aria-selected='true'],
	a:hover {
		background: var(--verdigris-wash);
	}
	.panel p {
		margin: 6px 12px 2px;
	}
	@media (max-width: 900px) {
		kbd {
			display: none;
		}
	}
</style>
