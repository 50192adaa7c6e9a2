<!-- A document on another website: the code to copy for each form, its own address, and that as a QR code. -->
<script lang="ts">
	import { Button, Checkbox, Input, Select, Textarea } from '$lib/ui/parts/controls';
	import { coverCode, elementCode, frameCode, framerPattern, linkCode, mayFrame } from '#core/placing/outside';
	import { defaultsOf, settingsOfForm, type PlacementDefaults, type PlacementSettings } from '#core/placing/placement';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import SettingFields from './SettingFields.svelte';
	let {
		origin,
		slug,
		title,
		ratio,
		maySave,
		open: visible,
		defaults,
		framers,
		owner
	}: {
		origin: string;
		slug: string;
		title: string;
		/** Height to width of its pages. */
		ratio: number;
		maySave: boolean;
		/** Whether a visitor may open it. */
		open: boolean;
		defaults: PlacementDefaults;
		/** Websites that may frame documents. */
		framers: readonly string[];
		/** Whether who looks may say which websites may. */
		owner: boolean;
	} = $props();
	const kinds = { frame: 'Reading frame', cover: 'Cover', link: 'Link', element: 'Element' } as const;
	let kind = $state<keyof typeof kinds>('frame');
	let own = $state<Partial<PlacementSettings>>({});
	let width = $state(300);
	let words = $state('');
	let save = $state(false);
	let form = $state<'text' | 'button' | 'cover' | 'card' | 'frame'>('card');
	let copied = $state('');
	let qr = $state('');
	const shown = $derived({ origin, slug, title, shape: { width: 210, height: Math.round(2100 * ratio) / 10 } });
	const usual = $derived(defaultsOf('frame', defaults));
	const code = $derived(
		kind === 'frame'
			? frameCode(shown, { ...usual, ...own })
			: kind === 'cover'
				? coverCode(shown, width)
				: kind === 'link'
					? linkCode(shown, words.trim() || title, save)
					: elementCode(shown, form, 'page')
	);
	const address = $derived(`${origin}/d/${slug}`);

	const id = $props.id();
	let website = $state('');
	let field = $state<HTMLInputElement>();
	let codeShown = $state(false);
	/** Whether it is shown in a frame, which a website must be allowed. */
	const framed = $derived(kind === 'frame' || (kind === 'element' && form === 'frame'));
	/** The host of what was typed: 'https://example.org/news' is on example.org; null where it is none. */
	const wanted = $derived.by(() => {
		const typed = website.trim();
		const url = URL.parse(/^https?:\/\//i.test(typed) ? typed : `https://${typed}`);
		return typed && url && new RegExp(framerPattern).test(url.host) ? url.host : null;
	});
	const allowed = (host: string) => mayFrame(`https://${host}`, framers);
	/** Lets the website frame documents where it may not yet, and copies the code. */
	async function allowAndCopy() {
		if (framed && website.trim() && !wanted) {
			field?.setCustomValidity('That is no website. Write it like www.example.org.');
			field?.reportValidity();
			return;
		}
		const host = framed ? wanted : null;
		if (host && owner && !allowed(host)) {
			const done = await act(
				`${host} may frame documents.`,
				() => call('patch /site', { body: { framers: [...framers, host] } }),
				({ before }) => call('patch /site', { body: before })
			);
			if (!done) return;
		}
		await copy('code', code);
		if (copied === 'code-not') codeShown = true;
	}

	async function copy(what: string, text: string) {
		try {
			await navigator.clipboard.writeText(text);
			copied = what;
		} catch {
			copied = `${what}-not`;
		}
		setTimeout(() => (copied = ''), 4000);
	}
	async function drawQr() {
		const { toString } = await import('qrcode');
		qr = await toString(address, { type: 'svg', margin: 4, errorCorrectionLevel: 'M' });
	}
	function set(change: Partial<Record<keyof PlacementSettings, unknown>>) {
		const next: Record<string, unknown> = { ...own, ...change };
		for (const key of Object.keys(next)) if (next[key] === null || next[key] === undefined) delete next[key];
		own = next;
	}
</script>

<section class="outside" aria-label="On another website">
	<h3>On another website</h3>
	{#if !visible}<p class="soft">Its door does not let visitors in: outside this site nobody would see more than the words to sign in.</p>{/if}
	<form
		class="line"
		onsubmit={(e) => {
			e.preventDefault();
			void allowAndCopy();
		}}
	>
		{#if framed}
			<Input
				bind:value={website}
				bind:elementRef={field}
				list="{id}-websites"
				aria-label="Which website will show it"
				placeholder="Which website will show it?"
				oninput={() => field?.setCustomValidity('')}
			/>
			<datalist id="{id}-websites"
				>{#each framers as known (known)}<option value={known}></option>{/each}</datalist
			>
		{/if}
		<Button type="submit" kind="main">{framed && owner && wanted && !allowed(wanted) ? 'Allow and copy' : 'Copy the code'}</Button>
	</form>
	{#if framed && wanted && !owner && !allowed(wanted)}<p class="soft">Until an owner allows {wanted}, it shows a plain link there.</p>{/if}
	<p class="soft" role="status">
		{#if copied}{copied.endsWith('-not')
				? 'The browser did not allow copying: select it and copy it.'
				: copied === 'code'
					? 'The code is copied.'
					: 'The address is copied.'}{/if}
	</p>
	<details bind:open={codeShown}>
		<summary>{kinds[kind]}: how it stands there, its code, its address</summary>
		<div class="line">
			<Input readonly value={address} aria-label="Direct link" onfocus={(e) => e.currentTarget.select()} />
			<Button onclick={() => copy('address', address)}>Copy</Button>
			<Button onclick={() => (qr ? (qr = '') : void drawQr())} aria-expanded={qr !== ''}>QR</Button>
		</div>
		{#if qr}<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn by the qrcode package from our own address -->
			<div class="qr">{@html qr}</div>{/if}
		<div class="kinds">
			{#each Object.entries(kinds) as [name, said] (name)}<Button
					kind="pill"
					class={{ on: kind === name }}
					aria-pressed={kind === name}
					onclick={() => (kind = name as typeof kind)}>{said}</Button
				>{/each}
		</div>
		<div class="set">
			{#if kind === 'frame'}<SettingFields names={settingsOfForm.frame.filter((n) => n !== 'align')} {own} {usual} {set} />
			{:else if kind === 'cover'}<label>Width <Input type="number" min="60" max="1200" bind:value={width} /> px</label>
			{:else if kind === 'link'}
				<label>Words <Input bind:value={words} placeholder={title} maxlength={300} /></label>
				{#if maySave}<label><Checkbox bind:checked={save} /> saves the file</label>{/if}
			{:else}
				<label
					>Form <Select bind:value={form}>
						<option value="text">Text link</option><option value="button">Button</option><option value="cover">Cover</option><option value="card">Card</option
						><option value="frame">Reading frame</option>
					</Select></label
				>
				<a class="soft" href="/api/docs/embedding" target="_blank" rel="noopener">How each looks, and what else it can be told</a>
			{/if}
		</div>
		<Textarea class="code" readonly rows={4} aria-label="Code to copy" value={code} onfocus={(e) => e.currentTarget.select()}></Textarea>
		{#if framed}<p class="soft">
				{framers.length ? `May be framed by ${framers.join(', ')}.` : 'No other website may frame documents yet.'} Any other shows a plain link.
				{#if owner}All of them stand in <a href="/desk/settings#framers">settings</a>.{:else}The owner sets which.{/if}
			</p>{/if}
	</details>
</section>

<style>
	.outside {
		margin-top: 10px;
		border-top: 1px solid var(--line);
		padding-top: 8px;
	}
	details {
		margin-top: 8px;
	}
	summary {
		cursor: pointer;
		font-weight: 600;
	}
	.line {
		display: flex;
		gap: 8px;
		align-items: center;
		margin-top: 8px;
	}
	.line :global(.field) {
		flex: 1;
		min-width: 0;
	}
	.kinds {
		display: flex;
		flex-wrap: wrap;
		gap: 4px;
		margin: 12px 0 8px;
	}
	.set {
		display: grid;
		gap: 8px;
		padding-left: 10px;
	}
	.set label {
		display: flex;
		gap: 8px;
		align-items: center;
	}
	.set :global(select.field) {
		padding-right: 28px;
	}
	.outside :global(.code) {
		width: 100%;
		margin-top: 10px;
		font:
			12.5px/1.5 ui-monospace,
			monospace;
	}
	.qr {
		width: 150px;
		margin-top: 8px;
		background: #fff;
	}
</style>
