<!-- Fields for the settings of a placement or of all of a form. What differs from the usual is marked, with one press to return to it. -->
<script lang="ts">
	import { Button, Checkbox, Fileupload, Input } from '$lib/ui/parts/controls';
	import { facts, sizeOf, widthOf, type Fact, type PlacementSettings } from '#core/placing/placement';
	import { fitWords, roomTools, roomToolWords, wayWords } from '#core/reading/settings';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	type Name = keyof PlacementSettings;
	let {
		names,
		own,
		usual,
		set
	}: {
		names: readonly Name[];
		/** What is said here. */
		own: Partial<PlacementSettings>;
		/** What holds where nothing is said. */
		usual: PlacementSettings;
		/** A change; null returns to the usual. */
		set: (change: Partial<Record<Name, unknown>>) => void;
	} = $props();

	/** What a field shows of a setting. */
	const written = (name: Name) => {
		const v = value(name);
		return typeof v === 'string' || typeof v === 'number' ? v : '';
	};
	const words: Record<Name, string> = {
		hover: 'Hover title',
		icon: 'Drawing of a page',
		facts: 'Says',
		style: 'Style',
		width: 'Width',
		align: 'Stands',
		page: 'Page of the cover',
		picture: 'Own picture',
		border: 'Border',
		shadow: 'Shadow',
		caption: 'Words below',
		alt: 'Alternative text',
		description: 'Description',
		height: 'Height',
		start: 'Starts at page',
		way: 'Way of reading',
		fit: 'Fit',
		foreEdge: 'Fore-edge',
		tools: 'Tools',
		theme: 'Colours'
	};
	const factWords: Record<Fact, string> = { type: 'type', pages: 'pages', size: 'size', date: 'date' };
	const choices: Partial<Record<Name, Record<string, string>>> = {
		style: { filled: 'Filled', outlined: 'Outlined' },
		align: { left: 'Left', centre: 'In the middle', right: 'Right' },
		way: wayWords,
		fit: fitWords,
		theme: { system: 'As the system', light: 'Light', dark: 'Dark' }
	};
	const value = (name: Name) => (own[name] === undefined || own[name] === null ? usual[name] : own[name]);
	const differs = (name: Name) => own[name] !== undefined && own[name] !== null && JSON.stringify(own[name]) !== JSON.stringify(usual[name]);
	const change = (name: Name, to: unknown) => set({ [name]: JSON.stringify(to) === JSON.stringify(usual[name]) ? null : to });
	const toggled = (name: 'facts' | 'tools', one: string) => {
		const list = (value(name) ?? roomTools) as readonly string[];
		change(
			name,
			(name === 'facts' ? (facts as readonly string[]) : (roomTools as readonly string[])).filter((x) => (x === one ? !list.includes(x) : list.includes(x)))
		);
	};
	function width(text: string) {
		const both = names.includes('height') ? sizeOf(text) : null;
		if (both) {
			set(both);
			return;
		}
		const to = widthOf(text);
		if (to === null) set({ width: null });
		else if (to !== undefined) change('width', to);
	}
	async function keep(file: File) {
		const form = new FormData();
		form.append('file', file);
		await act('', () => call('post /pictures', { body: form }), null, { show: ({ picture }) => set({ picture }) });
	}
	const number = (name: 'page' | 'start', text: string) =>
		set({ [name]: Math.max(1, Number.parseInt(text, 10) || 0) === 1 && name === 'start' ? null : Number.parseInt(text, 10) || null });
</script>

{#each names as name (name)}
	<div class="setting" class:differs={differs(name)}>
		<span class="name">{words[name]}</span>
		<span class="value">
			{#if choices[name]}
				{#each Object.entries(choices[name]!) as [key, said] (key)}<Button
						kind="pill"
						class={{ on: value(name) === key }}
						aria-pressed={value(name) === key}
						onclick={() => change(name, usual[name] === null && value(name) === key ? null : key)}>{said}</Button
					>{/each}
				{#if value(name) === null}<span class="soft">as reading rooms</span>{/if}
			{:else if name === 'facts' || name === 'tools'}
				{#each Object.entries(name === 'facts' ? factWords : roomToolWords) as [key, said] (key)}<label
						><Checkbox checked={((value(name) ?? roomTools) as readonly string[]).includes(key)} onchange={() => toggled(name, key)} />{said}</label
					>{/each}
			{:else if name === 'width'}
				<Input
					class="short"
					aria-label="Width in px or %"
					placeholder={usual.width === null ? 'by its words' : ''}
					title={names.includes('height') ? 'Both at once: 700 × 900' : undefined}
					value={typeof value('width') === 'number' ? `${value('width')} px` : written('width')}
					onchange={(e) => width(e.currentTarget.value)}
				/>
			{:else if name === 'height'}
				<Button
					kind="pill"
					class={{ on: value('height') === 'worked out' }}
					aria-pressed={value('height') === 'worked out'}
					onclick={() => change('height', 'worked out')}>Worked out</Button
				>
				<Input
					class="short"
					type="number"
					min="200"
					max="4000"
					step="10"
					aria-label="Height in px"
					placeholder="px"
					value={typeof value('height') === 'number' ? written('height') : ''}
					onchange={(e) => change('height', Math.min(4000, Math.max(200, Number(e.currentTarget.value) || 900)))}
				/>
			{:else if name === 'page' || name === 'start'}
				<Input
					class="short"
					type="number"
					min="1"
					aria-label={words[name]}
					placeholder={name === 'page' ? 'as the document' : '1'}
					value={written(name)}
					onchange={(e) => number(name, e.currentTarget.value)}
				/>
			{:else if name === 'picture'}
				{#if own.picture}<img class="own" src="/picture/{own.picture}.webp?w=400" alt="" /><Button kind="quiet" onclick={() => set({ picture: null })}
						>Take it away</Button
					>{:else}<label class="choose"
						>Choose a file<Fileupload
							unseen
							accept="image/png,image/jpeg,image/webp"
							aria-label="Own picture in place of the cover"
							onchange={(e) => {
								const file = e.currentTarget.files?.[0];
								e.currentTarget.value = '';
								if (file) void keep(file);
							}}
						/></label
					>{/if}
			{:else if name === 'hover' || name === 'alt'}
				<Input aria-label={words[name]} value={written(name)} onchange={(e) => set({ [name]: e.currentTarget.value.trim() || null })} />
			{:else}
				<label><Checkbox checked={value(name) === true} onchange={(e) => change(name, e.currentTarget.checked)} />{value(name) ? 'shown' : 'left out'}</label>
			{/if}
			{#if differs(name)}<Button kind="quiet" class="back" onclick={() => set({ [name]: null })} title="Differs from the site; press to return"
					>as the site</Button
				>{/if}
		</span>
	</div>
{/each}

<style>
	.value :global(.field) {
		height: 32px;
		padding: 2px 8px;
		font-size: 13.5px;
		min-width: 0;
		flex: 1;
	}
	.value :global(.short) {
		flex: 0 0 92px;
	}
	.own {
		height: 44px;
		max-width: 90px;
		object-fit: contain;
	}
	.choose {
		padding: 2px 8px;
		border: 1px solid var(--edge);
		border-radius: var(--corner);
		cursor: pointer;
	}
	.choose:focus-within {
		outline: 3px solid var(--verdigris);
	}
	.value :global(.back) {
		font-size: 12px;
	}
</style>
