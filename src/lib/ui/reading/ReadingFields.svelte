<!-- Fields for how documents are read, for the site or for one document. What differs from the usual is marked, with one press to return to it. -->
<script lang="ts">
	import { fitWords, roomTools, roomToolWords, wayWords, type ReadingSettings, type RoomSettings } from '#core/reading/settings';

	let {
		own,
		usual,
		usualWords,
		set
	}: {
		own: ReadingSettings;
		/** What holds where nothing is said here. */
		usual: RoomSettings;
		/** Whose that is: 'as the site'. */
		usualWords: string;
		/** All that is said from now on; null where nothing is. */
		set: (settings: ReadingSettings | null) => void;
	} = $props();

	type Name = keyof ReadingSettings;
	const value = <N extends Name>(name: N) => (own[name] ?? usual[name]) as RoomSettings[N];
	const differs = (name: Name) => own[name] !== undefined && JSON.stringify(own[name]) !== JSON.stringify(usual[name]);
	function change(name: Name, to: unknown) {
		const next: Record<string, unknown> = { ...own, [name]: to };
		if (to === undefined || JSON.stringify(to) === JSON.stringify(usual[name])) delete next[name];
		set(Object.keys(next).length ? (next as ReadingSettings) : null);
	}
	const choices = [
		['way', 'Way of reading', wayWords],
		['fit', 'Fit', fitWords],
		['theme', 'Colours', { system: 'As the system', light: 'Light', dark: 'Dark' }]
	] as const;
	const switches = [
		['foreEdge', 'Fore-edge', 'shown'],
		['cover', 'In a book', 'the first page stands alone'],
		['hideTools', 'The sill', 'comes only when it is wanted']
	] as const;
	let trouble = $state('');
</script>

{#snippet back(name: Name)}{#if differs(name)}<button type="button" class="quiet" onclick={() => change(name, undefined)}>{usualWords}</button>{/if}{/snippet}

{#each choices as [name, words, of] (name)}
	<div class="setting" class:differs={differs(name)}>
		<span class="name">{words}</span>
		<span class="value"
			>{#each Object.entries(of) as [key, said] (key)}<button
					type="button"
					class="pill"
					class:on={value(name) === key}
					aria-pressed={value(name) === key}
					onclick={() => change(name, key)}>{said}</button
				>{/each}{@render back(name)}</span
		>
	</div>
{/each}
{#each switches as [name, words, said] (name)}
	<div class="setting" class:differs={differs(name)}>
		<span class="name">{words}</span>
		<span class="value"
			><label><input type="checkbox" checked={value(name)} onchange={(e) => change(name, e.currentTarget.checked)} />{said}</label>{@render back(name)}</span
		>
	</div>
{/each}
<div class="setting" class:differs={differs('tools')}>
	<span class="name">Tools</span>
	<span class="value"
		>{#each roomTools as tool (tool)}<label
				><input
					type="checkbox"
					checked={value('tools').includes(tool)}
					onchange={() =>
						change(
							'tools',
							roomTools.filter((t) => (t === tool ? !value('tools').includes(t) : value('tools').includes(t)))
						)}
				/>{roomToolWords[tool]}</label
			>{/each}{@render back('tools')}</span
	>
</div>
<div class="setting" class:differs={differs('back')}>
	<span class="name">Way back</span>
	<span class="value"
		><input
			class="field"
			aria-label="Where the way back leads"
			placeholder="to where the reader came from"
			value={own.back ?? ''}
			onchange={(e) => {
				const text = e.currentTarget.value.trim();
				trouble = text && !/^(?:\/(?!\/)\S*|https?:\/\/\S+)$/.test(text) ? 'An address of this site such as /library, or a whole one with https://' : '';
				if (!trouble) change('back', text || undefined);
			}}
		/>{#if trouble}<span class="trouble" role="alert">{trouble}</span>{/if}</span
	>
</div>

<style>
	.field {
		flex: 1;
		min-width: 160px;
	}
	.trouble {
		color: var(--brick);
	}
</style>
