<!-- The site's look, its navigation, what placements are like, and which websites may frame: for its owners. -->
<script lang="ts">
	import { Button, Fileupload, Input, Moment, Select, Textarea } from '$lib/ui/parts/controls';
	import { untrack } from 'svelte';
	import { contrast, leastContrast, nearestPassing, siteGround } from '#core/site/colour';
	import { defaultsOf, forms, formWords, ownEach, presses, pressWords, settingsOfForm, type PlacementDefaults } from '#core/placing/placement';
	import type { Site } from '$lib/server/site/site';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import { asItComes, type ReadingSettings } from '#core/reading/settings';
	import { languageNames, languages } from '#core/words/words';
	import ReadingFields from '$lib/ui/reading/ReadingFields.svelte';
	import Part from '$lib/ui/parts/Part.svelte';
	import SettingFields from './SettingFields.svelte';

	let {
		given,
		pages,
		navigation,
		zones,
		setSite
	}: {
		given: Site;
		pages: readonly { path: string; title: string; published: boolean }[];
		navigation: readonly string[];
		/** IANA names of time zones. */
		zones: readonly string[];
		/** Sets what a change says, or what is made for it first. */
		setSite: (change: Record<string, unknown> | (() => Promise<Record<string, unknown>>)) => Promise<unknown>;
	} = $props();

	let name = $state(untrack(() => given.name));
	let colour = $state(untrack(() => given.colour ?? '#1c6a61'));
	let background = $state(untrack(() => given.background ?? siteGround));
	let address = $state(untrack(() => given.foot?.address ?? ''));
	let below = $state(untrack(() => given.foot?.words ?? ''));
	let notice = $state(untrack(() => given.notice?.words ?? ''));
	let noticePath = $state(untrack(() => given.notice?.path ?? ''));
	let noticeUntil = $state<string | null>(untrack(() => given.notice?.until ?? null));
	let framers = $state(untrack(() => (given.framers ?? []).join('\n')));
	let shownForm = $state<(typeof forms)[number]>('frame');

	const weak = $derived(contrast(colour, background) < leastContrast || contrast(colour, '#ffffff') < leastContrast);
	const passes = $derived(nearestPassing(colour, [background, '#ffffff']));

	async function picture(kind: 'mark' | 'favicon' | 'band', event: Event & { currentTarget: HTMLInputElement }) {
		const file = event.currentTarget.files?.[0];
		event.currentTarget.value = '';
		if (!file) return;
		const form = new FormData();
		form.append('file', file);
		await setSite(async () => ({ [kind]: (await call('post /pictures', { body: form })).picture }));
	}

	const order = (paths: string[]) =>
		act(
			'The navigation is set.',
			() => call('patch /navigation', { body: { paths } }),
			({ before }) => call('patch /navigation', { body: before })
		);
	const move = (at: number, by: number) => {
		const paths = [...navigation];
		paths.splice(at + by, 0, ...paths.splice(at, 1));
		void order(paths);
	};
	const titleOf = (path: string) => pages.find((p) => p.path === path)?.title ?? path;
	const placing = $derived((given.placing ?? {}) as PlacementDefaults);
	const setDefault = (form: (typeof forms)[number], change: Record<string, unknown>) => {
		const own: Record<string, unknown> = { ...placing[form], ...change };
		for (const key of Object.keys(own)) if (own[key] === null || own[key] === undefined) delete own[key];
		void setSite({ placing: { ...placing, [form]: own } });
	};
</script>

<Part id="site" title="The site">
	<form
		class="look"
		onsubmit={(e) => {
			e.preventDefault();
			void setSite({ name: name.trim(), colour: colour === '#1c6a61' ? null : colour, background: background === siteGround ? null : background });
		}}
	>
		<label>Name <Input bind:value={name} required maxlength={120} /></label>
		<label>Colour of links and buttons <span class="pair"><Input type="color" bind:value={colour} /><code>{colour}</code></span></label>
		<label>Background <span class="pair"><Input type="color" bind:value={background} /><code>{background}</code></span></label>
		{#if weak}
			<p class="trouble" role="alert">
				Words in {colour} could not be read on {background} and under white: {Math.min(contrast(colour, background), contrast(colour, '#ffffff')).toFixed(1)} to 1,
				at least
				{leastContrast} is needed.
				<Button onclick={() => (colour = passes)}><i style="background:{passes}"></i>Take {passes}, the nearest that passes</Button>
			</p>
		{/if}
		<Button type="submit" disabled={weak}>Set it</Button>
	</form>
	<div class="look">
		<label
			>Time zone
			<Select value={given.zone} onchange={(e) => void setSite({ zone: e.currentTarget.value })}>
				{#each zones.includes(given.zone) ? zones : [given.zone, ...zones] as zone (zone)}<option value={zone}>{zone.replaceAll('_', ' ')}</option>{/each}
			</Select></label
		>
		<p class="soft">
			Days begin and end in it: on doors, keys and memberships, in lists and in readership. When it changes, the figures by day are made anew from the ledger;
			with very many entries that takes some minutes.
		</p>
	</div>
	<div class="pictures">
		{#each [['mark', 'Mark before the name'], ['favicon', 'Favicon'], ['band', 'Picture behind the front page’s title']] as const as [kind, words] (kind)}
			<span
				>{words}:
				{#if given[kind]}<img src="/picture/{given[kind]}.webp?w=64" alt="" height="32" /><Button kind="quiet" onclick={() => setSite({ [kind]: null })}
						>Take it away</Button
					>{:else}none{/if}
				<label class="btn">Choose a picture<Fileupload unseen accept="image/png,image/jpeg,image/webp" onchange={(e) => picture(kind, e)} /></label>
			</span>
		{/each}
	</div>
</Part>
<Part id="around" title="Around every page">
	<form
		class="look"
		onsubmit={(e) => {
			e.preventDefault();
			void setSite({
				foot: address.trim() || below.trim() ? { address: address.trim() || null, words: below.trim() || null } : null,
				notice: notice.trim() ? { words: notice.trim(), path: noticePath || null, until: noticeUntil } : null
			});
		}}
	>
		<label>Address in the foot <Textarea bind:value={address} rows={3} maxlength={400} /></label>
		<label>Words in the foot <Textarea bind:value={below} rows={3} maxlength={1000} /></label>
		<label>A notice above every page <Input bind:value={notice} maxlength={200} placeholder="nothing" /></label>
		{#if notice.trim()}
			<label
				>The page that says more
				<Select bind:value={noticePath}>
					<option value="">none</option>
					{#if noticePath && !pages.some((p) => p.path === noticePath)}<option value={noticePath}>{noticePath}</option>{/if}
					{#each pages.filter((p) => p.published) as p (p.path)}<option value={p.path}>{p.title}</option>{/each}
				</Select></label
			>
			<div class="moment-under">
				Its last day <Moment
					label="Its last day"
					value={noticeUntil}
					dayOnly
					zone={given.zone}
					none="until it is taken away"
					change={(day) => (noticeUntil = day)}
				/>
			</div>
		{/if}
		<Button type="submit">Set it</Button>
	</form>
	<p class="soft">
		Where to write to is the address under <a href="#weaknesses">Reports of weaknesses</a>. The foot leads to <a href="/privacy">what is kept of a visit</a>,
		made from these settings, and offers six languages.
	</p>
</Part>
<Part id="navigation" title="Front page and navigation">
	<div>
		<label
			>At / stands
			<Select value={given.front ?? ''} onchange={(e) => setSite({ front: e.currentTarget.value || null })}>
				<option value="">{pages.some((p) => p.path === '/') ? `“${titleOf('/')}”` : 'a list of what may be read'}</option>
				{#each pages.filter((p) => p.path !== '/' && p.published) as p (p.path)}<option value={p.path}>{p.title}</option>{/each}
			</Select></label
		>
		{#if given.front && pages.some((p) => p.path === '/' && p.published)}<span class="soft">A published page at / itself comes first.</span>{/if}
	</div>
	<ol class="nav">
		{#each navigation as path, i (path)}
			<li>
				<strong>{titleOf(path)}</strong><span class="soft">{path}</span>
				<span class="steps ml-auto flex gap-2">
					<Button class="step" disabled={i === 0} onclick={() => move(i, -1)} aria-label="{titleOf(path)}: earlier" title="Earlier">↑</Button>
					<Button class="step" disabled={i === navigation.length - 1} onclick={() => move(i, 1)} aria-label="{titleOf(path)}: later" title="Later">↓</Button>
					<Button kind="quiet" onclick={() => order(navigation.filter((p) => p !== path))} aria-label="{titleOf(path)}: out of the navigation">Out</Button>
				</span>
			</li>
		{:else}<li class="soft">No page is in the navigation.</li>{/each}
	</ol>
	{#if pages.some((p) => !navigation.includes(p.path))}
		<label
			>Put in
			<Select
				value=""
				onchange={(e) => {
					if (e.currentTarget.value) void order([...navigation, e.currentTarget.value]);
				}}
			>
				<option value="">a page…</option>
				{#each pages.filter((p) => !navigation.includes(p.path)) as p (p.path)}<option value={p.path}>{p.title}</option>{/each}
			</Select></label
		>
	{/if}
</Part>
<Part id="language" title="The language readers are spoken to in">
	<div class="defaults">
		<label
			>The site is written in
			<Select value={given.language ?? ''} onchange={(e) => void setSite({ language: e.currentTarget.value || null })}>
				<option value="">any: go by the reader’s browser</option>
				{#each languages as language (language)}<option value={language}>{languageNames[language]}</option>{/each}
			</Select></label
		>
		<p class="soft">Reading room, turned away, sign-in, document page and catalogue. What a reader chooses goes before it.</p>
	</div>
</Part>
<Part id="reading" title="Reading rooms, unless a document or a placement says otherwise">
	<div class="defaults">
		<ReadingFields
			own={(given.reading ?? {}) as ReadingSettings}
			usual={asItComes('window')}
			usualWords="as it comes"
			set={(reading) => void setSite({ reading })}
		/>
	</div>
</Part>
<Part id="placements" title="How placements look unless they say otherwise">
	<div class="flex flex-wrap gap-1">
		{#each forms as form (form)}<Button kind="pill" class={{ on: shownForm === form }} aria-pressed={shownForm === form} onclick={() => (shownForm = form)}
				>{formWords[form]}</Button
			>{/each}
	</div>
	<div class="defaults">
		<label class="setting">
			<span class="name">A press</span>
			<span class="value">
				<Select
					value={placing[shownForm]?.press ?? (shownForm === 'button' ? 'save' : 'page')}
					onchange={(e) => setDefault(shownForm, { press: e.currentTarget.value })}
				>
					{#each presses as press (press)}<option value={press}>{pressWords[press]}</option>{/each}
				</Select>
			</span>
		</label>
		<SettingFields
			names={settingsOfForm[shownForm].filter((n) => !ownEach.has(n))}
			own={placing[shownForm] ?? {}}
			usual={defaultsOf(shownForm)}
			set={(change) => setDefault(shownForm, change)}
		/>
	</div>
</Part>
<Part id="framers" title="Websites that may frame documents">
	<p>
		One in a line: <code>news.example.org</code>, all under one as <code>*.example.org</code>, with a port where it is not the usual one. Any other website gets
		a plain link in the frame.
	</p>
	<form
		class="look"
		onsubmit={(e) => {
			e.preventDefault();
			void setSite({
				framers: [
					...new Set(
						framers
							.split(/[\s,]+/)
							.filter(Boolean)
							.map((f) =>
								f
									.toLowerCase()
									.replace(/^https?:\/\//, '')
									.replace(/\/.*$/, '')
							)
					)
				]
			});
		}}
	>
		<Textarea rows={4} bind:value={framers} aria-label="Websites that may frame documents"></Textarea>
		<Button type="submit">Set it</Button>
	</form>
</Part>

<style>
	.look {
		display: grid;
		gap: 10px;
		justify-items: start;
		margin: 10px 0;
	}
	.look label {
		display: grid;
		grid-template-columns: 200px auto;
		align-items: center;
		gap: 10px;
	}
	.look :global(.field) {
		width: 380px;
		max-width: 100%;
	}
	.steps :global(.step) {
		width: 34px;
		padding: 0;
	}
	.pair {
		display: inline-flex;
		gap: 10px;
		align-items: center;
	}
	label :global(input[type='color']),
	.pair :global(input[type='color']),
	.btn :global(input[type='color']) {
		width: 46px;
		height: 32px;
		border: 1px solid var(--edge);
		background: none;
		padding: 2px;
	}
	.trouble i {
		display: inline-block;
		width: 14px;
		height: 14px;
		margin-right: 6px;
		border: 1px solid var(--line);
	}
	.pictures {
		display: flex;
		flex-wrap: wrap;
		gap: 10px 26px;
	}
	.pictures span {
		display: inline-flex;
		gap: 10px;
		align-items: center;
	}
	.nav {
		border: 1px solid var(--line);
		background: var(--sheet);
		margin: 8px 0;
	}
	.nav li {
		display: flex;
		gap: 12px;
		align-items: baseline;
		padding: 6px 12px;
	}
	.nav li + li {
		border-top: 1px solid var(--line);
	}
	.defaults {
		margin-top: 12px;
		display: grid;
		gap: 4px;
		max-width: 660px;
	}
	label :global(select.field),
	.value :global(select.field) {
		padding-right: 28px;
	}
</style>
