<!-- A document on another website: the code to copy for each form, its own address, and that as a QR code. -->
<script lang="ts">
	import { Button, Checkbox, Input, Select, Textarea } from '$lib/ui/parts/controls';
	import { coverCode, elementCode, frameCode, linkCode } from '#core/placing/outside';
	import { defaultsOf, settingsOfForm, type PlacementDefaults, type PlacementSettings } from '#core/placing/placement';
	import SettingFields from './SettingFields.svelte';
	let {
		origin,
		slug,
		title,
		ratio,
		maySave,
		open: visible,
		defaults,
		framers
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
		framers: readonly string[];
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

<details class="outside">
	<summary>On another website</summary>
	{#if !visible}<p class="soft">Its door does not let visitors in: outside this site nobody would see more than the words to sign in.</p>{/if}
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
		{/if}
	</div>
	<Textarea class="code" readonly rows={4} aria-label="Code to copy" value={code} onfocus={(e) => e.currentTarget.select()}></Textarea>
	<p class="line">
		<Button kind="main" onclick={() => copy('code', code)}>Copy the code</Button>
		<span role="status"
			>{copied.endsWith('-not')
				? 'The browser did not allow copying: select it and copy it.'
				: copied === 'code'
					? 'The code is copied.'
					: copied === 'address'
						? 'The address is copied.'
						: ''}</span
		>
	</p>
	{#if kind === 'frame' || (kind === 'element' && form === 'frame')}<p class="soft">
			{framers.length ? `May be framed by ${framers.join(', ')}.` : 'No other website may frame documents yet.'} Any other shows a plain link. The owner sets which,
			in
			<a href="/desk/settings">settings</a>.
		</p>{/if}
</details>

<style>
	.outside {
		margin-top: 10px;
		border-top: 1px solid var(--line);
		padding-top: 8px;
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
