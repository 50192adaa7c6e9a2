<!-- What is chosen in the text, beside it: the placement with its form and settings and what is wrong with it, the picture, or the document list. -->
<script lang="ts">
	import { defaultsOf, forms, formWords, ledTo, presses, pressWords, settingsOfForm, widthOf } from '#core/placing/placement';
	import { Button, Input, Select } from '$lib/ui/parts/controls';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	import Mismatch from '../Mismatch.svelte';
	import SettingFields from '../SettingFields.svelte';
	import type { Article } from './article.svelte';
	import { changeAs } from './documents';
	import { writeHeadingAbove } from './heading';
	import ListSettings from './ListSettings.svelte';

	let { article, zone, link }: { article: Article; zone: string; /** Asks where a chosen picture leads. */ link: () => void } = $props();
	const chosen = $derived(article.chosen);
	$effect(() => {
		if (chosen) void article.knowPages();
	});
	const teaser = $derived(chosen && ledTo(chosen));
	/** Pages to choose from; the one chosen stands there before the others are known. */
	const pages = $derived([
		...[...article.pages.values()].filter((page) => page.path !== article.given.writer.path),
		...(teaser === null || article.pages.has(teaser) ? [] : [{ path: teaser, title: teaser, published: true }])
	]);
	const offered = $derived(teaser === null ? presses : (['here', 'tab'] as const));
	// a press on a page of the site is a plain one unless it is told otherwise
	function leadTo(path: string) {
		if (!chosen) return;
		const usual = article.given.defaults[chosen.form]?.press ?? 'page';
		article.set(path ? { leads: path, press: chosen.press === 'tab' ? 'tab' : 'here' } : { leads: null, press: usual });
	}
	const picture = $derived(article.chosenPicture);
	const measures = ['25%', '50%', '100%'] as const;
	const sides = { '': 'By itself', left: 'Left, words beside', centre: 'In the middle', right: 'Right, words beside', wide: 'As wide as the page' } as const;
	function width(field: HTMLInputElement) {
		const shown = widthOf(field.value);
		if (shown === undefined) {
			field.setCustomValidity('A width is a number of px, as 300, or a share of the column, as 50 %.');
			field.reportValidity();
			return;
		}
		field.setCustomValidity('');
		article.set({ shown });
	}
	/** The same angle from −179 to 180. */
	const angleOf = (degrees: number) => 180 - ((((180 - degrees) % 360) + 360) % 360);
	function turn(field: HTMLInputElement) {
		const said = field.value.replace('°', '').replace('−', '-').trim();
		const isAngle = /^(?:[+-]?\d{1,3})?$/.test(said);
		field.setCustomValidity(isAngle ? '' : 'An angle is a whole number of degrees: 5 leans to the right, -5 to the left.');
		if (isAngle) void article.turnPicture(angleOf(Number(said)));
		else field.reportValidity();
	}
	const ofChosen = $derived(chosen ? article.given.writer.mismatches.filter((f) => f.placement === chosen.id) : []);
</script>

{#if chosen}
	{@const at = article.documents.get(chosen.document)}
	<aside aria-label="This placement">
		<h2>{at?.title ?? chosen.document}</h2>
		<p class="soft">{teaser === null ? 'this placement' : 'this teaser shows it, and leads to a page'}</p>
		{#if ofChosen.length}
			<div class="grid gap-2 mt-3">
				{#each ofChosen as f (f.kind)}<Mismatch found={f} {zone} names="none" mend={(remedy, why) => article.mend(f, remedy, why)} />{/each}
			</div>
		{/if}
		<dl>
			<dt>Form</dt>
			<dd>
				{#each forms as form (form)}<Button
						kind="pill"
						class={{ on: chosen.form === form }}
						aria-pressed={chosen.form === form}
						onclick={() => article.setForm(form)}>{formWords[form]}</Button
					>{/each}
			</dd>
			{#if chosen.form !== 'frame'}
				<dt>Leads to</dt>
				<dd>
					<Select class="w-full!" aria-label="Leads to" value={teaser ?? ''} onchange={(e) => leadTo(e.currentTarget.value)}>
						<option value="">the document itself</option>
						{#each pages as page (page.path)}<option value={page.path}>the page “{page.title}”{page.published ? '' : ', not published'}</option>{/each}
					</Select>
				</dd>
				<dt>A press</dt>
				<dd>
					{#each offered as press (press)}<Button
							kind="pill"
							class={{ on: chosen.press === press }}
							aria-pressed={chosen.press === press}
							onclick={() => article.set({ press })}>{pressWords[press]}</Button
						>{/each}
				</dd>
			{/if}
			{#if article.heading !== null}
				<dt>Heading</dt>
				<dd>
					<Input
						class="w-full!"
						aria-label="Heading above it"
						placeholder="none above it"
						maxlength={200}
						value={article.heading}
						onchange={(e) => writeHeadingAbove(article, e.currentTarget.value)}
					/>
				</dd>
			{/if}
			<dt>Words</dt>
			<dd>
				<Input
					class="w-full!"
					aria-label="Words"
					placeholder={teaser === null ? at?.title : (article.pages.get(teaser)?.title ?? teaser)}
					value={chosen.words ?? ''}
					onchange={(e) => article.set({ words: e.currentTarget.value.trim() || null })}
				/>
			</dd>
		</dl>
		<div class="settings">
			<SettingFields
				names={settingsOfForm[chosen.form]}
				own={chosen}
				usual={{ ...defaultsOf(chosen.form, article.given.defaults), ...(teaser === null ? {} : { facts: [] }) }}
				set={(change) => article.set(change)}
			/>
			{#if chosen.locked}<p class="soft">
					Those whom the document turns away see a locked card. <Button kind="quiet" onclick={() => article.set({ locked: null })}>Not any more</Button>
				</p>{/if}
		</div>
		{#if at}
			<label class="grid gap-1 mt-3"
				>The document is called
				<Input value={at.title} maxlength={200} onchange={(e) => void changeAs(article, at.slug, 'title', e.currentTarget)} /></label
			>
			<label class="grid gap-1 mt-3"
				>It lies in the folder
				<Input
					value={at.folder}
					maxlength={200}
					list="folders-of-chosen"
					placeholder="none"
					onchange={(e) => void changeAs(article, at.slug, 'folder', e.currentTarget)}
				/></label
			>
			<datalist id="folders-of-chosen"
				>{#each article.given.folders as folder (folder.name)}<option value={folder.name}></option>{/each}</datalist
			>
			<p class="flex gap-2 mt-3"><DoorMark position={at.position} height={22} /> {at.sentence}</p>
			<a class="quiet" href="/desk/documents/{at.slug}#door">Set its door</a>
		{/if}
		<p><Button class="mt-4" onclick={() => article.takeOut()}>Take out</Button></p>
	</aside>
{:else if picture}
	<aside aria-label="This picture">
		<h2>This picture</h2>
		<dl>
			<dt>Leads to</dt>
			<dd>
				{#if picture.href}<span class="href">{picture.href}</span>{:else}<span class="soft">nothing</span>{/if}
				<Button kind="pill" title="Ctrl and k" onclick={link}>{picture.href ? 'Change' : 'A document, page or address'}</Button>
				{#if picture.href}<Button kind="quiet" onclick={() => article.unlink()}>Take the link away</Button>{/if}
			</dd>
			<dt>Width</dt>
			<dd>
				{#each measures as measure (measure)}<Button
						kind="pill"
						class={{ on: picture.shown === measure }}
						aria-pressed={picture.shown === measure}
						onclick={() => article.set({ shown: picture.shown === measure ? null : measure })}>{measure}</Button
					>{/each}
				<Input
					class="w-28!"
					aria-label="Width in px or %"
					placeholder="as it is"
					value={typeof picture.shown === 'number' ? `${picture.shown} px` : (picture.shown ?? '')}
					onchange={(e) => width(e.currentTarget)}
				/>
			</dd>
			<dt>Turned</dt>
			<dd>
				<Button kind="pill" onclick={() => void article.turnPicture(angleOf((picture.angle ?? 0) + 90))}>A quarter to the right</Button>
				<Input
					class="w-28!"
					aria-label="Degrees to the right"
					placeholder="upright"
					inputmode="numeric"
					value={picture.angle ? `${picture.angle}°` : ''}
					onchange={(e) => turn(e.currentTarget)}
				/>
			</dd>
			<dt>Stands</dt>
			<dd>
				{#each Object.entries(sides) as [side, said] (side)}<Button
						kind="pill"
						class={{ on: (picture.align ?? '') === side }}
						aria-pressed={(picture.align ?? '') === side}
						onclick={() => article.set({ align: side || null })}>{said}</Button
					>{/each}
			</dd>
			<dt>Words</dt>
			<dd>
				<Input
					class="w-full!"
					aria-label="Words below it"
					placeholder="none below it"
					maxlength={400}
					value={picture.caption ?? ''}
					onchange={(e) => article.set({ caption: e.currentTarget.value.trim() || null })}
				/>
			</dd>
		</dl>
		<label class="grid gap-1 mt-3"
			>What it shows, for those who do not see it
			<Input value={picture.alt ?? ''} maxlength={400} onchange={(e) => article.set({ alt: e.currentTarget.value.trim() || null })} /></label
		>
		<p><Button class="mt-4" onclick={() => article.takeOut()}>Take out</Button></p>
	</aside>
{:else if article.chosenList}
	<aside aria-label="This list"><ListSettings {article} list={article.chosenList} /></aside>
{/if}

<style>
	aside {
		overflow-y: auto;
		background: var(--sheet);
		border-left: 1px solid var(--line);
		padding: 18px 20px;
	}
	aside h2 {
		font-size: 18px;
	}
	dl {
		display: grid;
		grid-template-columns: 64px 1fr;
		margin-top: 10px;
	}
	dt,
	dd {
		border-top: 1px solid var(--line);
		padding: 9px 0;
	}
	dt {
		color: var(--ink-soft);
	}
	dd {
		display: flex;
		flex-wrap: wrap;
		gap: 5px;
		align-items: center;
	}
	.href {
		overflow-wrap: anywhere;
	}
	.settings {
		border-top: 1px solid var(--line);
		border-bottom: 1px solid var(--line);
		padding: 10px 0;
		display: grid;
		gap: 8px;
	}
</style>
