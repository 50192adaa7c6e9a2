<!-- The site's fields: what they are called, what kind they are, in which order, and where they show; and what a document's page has. -->
<script lang="ts">
	import { slugOf } from '#core/documents/address';
	import { fieldKinds, fieldKindWords, type DocumentPage, type Field, type FieldKind } from '#core/documents/fields';
	import { Button, Checkbox, Input, Radio, Select, Textarea } from '$lib/ui/parts/controls';

	let {
		fields,
		documentPage,
		setSite
	}: {
		fields: readonly Field[];
		documentPage: DocumentPage;
		setSite: (change: { fields: Field[] } | { documentPage: DocumentPage }) => Promise<unknown>;
	} = $props();
	let words = $state('');
	let kind = $state<FieldKind>('text');
	let choices = $state('');
	const linesOf = (text: string) => [...new Set(text.split('\n').flatMap((line) => line.trim().replace(/\s+/g, ' ') || []))];

	const set = (next: readonly Field[]) => setSite({ fields: [...next] });
	const change = (name: string, given: Partial<Field>) => set(fields.map((field) => (field.name === name ? { ...field, ...given } : field)));
	function move(at: number, by: number) {
		const next = [...fields];
		next.splice(at + by, 0, ...next.splice(at, 1));
		void set(next);
	}
	/** A name that no other field has: what documents say is kept under it. */
	function freshName(): string {
		const base = slugOf(words, 'field').slice(0, 50);
		for (let n = 1; ; n++) {
			const name = n === 1 ? base : `${base}-${n}`;
			if (!fields.some((field) => field.name === name)) return name;
		}
	}
	async function add(event: SubmitEvent) {
		event.preventDefault();
		const made: Field = {
			name: freshName(),
			words: words.trim(),
			kind,
			listed: true,
			filtered: kind === 'choice',
			...(kind === 'choice' ? { choices: linesOf(choices) } : {})
		};
		if (await set([...fields, made])) [words, choices] = ['', ''];
	}
</script>

<p>
	Particulars that you give your documents beside title, folder and topics, as “Department” or “Closing date”. They are filled in on a document’s sheet, for
	many at once, or from a table.
</p>
{#if fields.length}
	<ul>
		{#each fields as field, i (field.name)}
			<li>
				<div class="line">
					<Input
						aria-label="What “{field.words}” is called"
						value={field.words}
						maxlength={60}
						onchange={(e) => {
							if (e.currentTarget.value.trim()) void change(field.name, { words: e.currentTarget.value.trim() });
							else e.currentTarget.value = field.words;
						}}
					/>
					<span class="soft">{fieldKindWords[field.kind]}</span>
					<label><Checkbox checked={field.listed} onchange={(e) => void change(field.name, { listed: e.currentTarget.checked })} /> shown in lists</label>
					{#if field.kind === 'choice'}<label
							><Checkbox checked={field.filtered} onchange={(e) => void change(field.name, { filtered: e.currentTarget.checked })} /> narrows lists</label
						>{/if}
					<span class="ml-auto flex gap-2">
						<Button disabled={i === 0} onclick={() => move(i, -1)} aria-label="{field.words}: earlier" title="Earlier">↑</Button>
						<Button disabled={i === fields.length - 1} onclick={() => move(i, 1)} aria-label="{field.words}: later" title="Later">↓</Button>
						<Button
							kind="quiet"
							onclick={() => void set(fields.filter((other) => other.name !== field.name))}
							aria-label="Take “{field.words}” away"
							title="What documents say in it is kept, and is there again with undo">Take away</Button
						>
					</span>
				</div>
				{#if field.kind === 'choice'}
					<Textarea
						rows={Math.min(8, (field.choices?.length ?? 0) + 1)}
						aria-label="Choices of “{field.words}”, one in a line"
						value={field.choices?.join('\n') ?? ''}
						onchange={(e) => void change(field.name, { choices: linesOf(e.currentTarget.value) })}
					></Textarea>
				{/if}
			</li>
		{/each}
	</ul>
{/if}
<form onsubmit={add}>
	<Input bind:value={words} required maxlength={60} placeholder="A new field: Department, Closing date" aria-label="What the new field is called" />
	<Select aria-label="Its kind" bind:value={kind}>
		{#each fieldKinds as one (one)}<option value={one}>{fieldKindWords[one]}</option>{/each}
	</Select>
	{#if kind === 'choice'}<Textarea
			bind:value={choices}
			required
			rows={3}
			placeholder="What may be chosen, one in a line"
			aria-label="Its choices, one in a line"
		></Textarea>{/if}
	<Button type="submit">Add the field</Button>
</form>
<h3>The page of a document</h3>
<p class="choice">
	<Radio group={documentPage} value="plain" onchange={() => void setSite({ documentPage: 'plain' })}>Its cover, what it says, and the way to read it</Radio>
	<Radio group={documentPage} value="particulars" onchange={() => void setSite({ documentPage: 'particulars' })}
		>Its particulars, with the document below to read in place</Radio
	>
</p>

<style>
	ul,
	.choice {
		display: grid;
		gap: 10px;
		margin: 10px 0;
	}
	.line,
	form {
		display: flex;
		flex-wrap: wrap;
		gap: 6px 14px;
		align-items: center;
	}
	.line :global(.field) {
		width: 200px;
	}
	li :global(textarea) {
		margin-top: 6px;
		width: 100%;
	}
	label {
		display: inline-flex;
		gap: 6px;
		align-items: center;
	}
	form {
		border-top: 1px solid var(--line);
		padding-top: 10px;
	}
	form :global(.field:first-child) {
		flex: 1 1 240px;
	}
	form :global(textarea) {
		flex: 1 1 100%;
	}
	h3 {
		font: 600 16px var(--title);
		margin-top: 18px;
	}
</style>
