<!-- Members from a table: what its columns are taken for, what it would change, then all of it at once. -->
<script lang="ts">
	import { Button, Checkbox, Fileupload, Select } from '$lib/ui/parts/controls';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { goto } from '$app/navigation';
	import { counted } from '#core/text/list';
	import { dayOrders, meanings, type DayOrder, type Mapping, type Meaning, type PlannedLine } from '#core/people/csv';
	import { act } from '$lib/ui/parts/act';
	import { call, type Answer } from '$lib/ui/parts/api';

	let { data } = $props();

	type Preview = Answer<'post /members/import'>;
	const meaningWords: Record<Meaning, string> = {
		email: 'E-mail address',
		name: 'Name',
		given: 'First name',
		family: 'Family name',
		group: 'Group',
		from: 'From day',
		until: 'Until day'
	};
	const dayWords: Record<DayOrder, string> = { iso: '2026-12-31', 'day-first': '31/12/2026', 'month-first': '12/31/2026' };

	let file = $state<File | null>(null);
	let preview = $state<Preview | null>(null);
	let makeGroups = $state(false);
	let end = $state(false);
	let trouble = $state('');
	let busy = $state(false);

	async function send(look: boolean, wish: { mapping?: Mapping; dayOrder?: DayOrder } = {}) {
		busy = true;
		const mapping = wish.mapping ?? preview?.mapping;
		const dayOrder = wish.dayOrder ?? (wish.mapping ? undefined : preview?.dayOrder);
		await act(
			({ added, changed, ended }) =>
				look
					? ''
					: `${counted(added, 'member', 'members')} added, ${changed} changed${ended.length ? `, ${counted(ended.length, 'membership', 'memberships')} ended` : ''}.`,
			() =>
				call('post /members/import', {
					query: { makeGroups, end, dayOrder, ...mapping, ...(look ? { preview: 'true' } : {}) },
					// there is one before it can be looked at
					body: new Blob([file!], { type: 'text/csv' })
				}),
			null,
			{
				trouble: (words) => (trouble = words),
				show: async (answer) => {
					if (look) preview = answer;
					else await goto('/desk/people');
				}
			}
		);
		busy = false;
	}
	function choose(chosen: File | undefined) {
		if (!chosen) return;
		[file, preview, makeGroups, end] = [chosen, null, false, false];
		void send(true);
	}
	function setMeaning(column: number, meaning: string) {
		// columns are chosen in the preview
		const mapping: Mapping = Object.fromEntries(Object.entries(preview!.mapping).filter(([m, at]) => at !== column && m !== meaning));
		void send(true, { mapping: meaning ? { ...mapping, [meaning]: column } : mapping });
	}
	const meaningOf = (column: number) => meanings.find((m) => preview?.mapping[m] === column) ?? '';
	const kindWords = { added: 'added', changed: 'changed', same: 'as it is', wrong: 'wrong' } as const;
	const spanWords = (l: { from: string | null; until: string | null }) =>
		[l.from && `from ${l.from}`, l.until && `until ${l.until}`].filter(Boolean).join(' ') || 'without end';
	/** Memberships that end which are shown one by one. */
	const shownEnded = 200;
	const groupName = (slug: string) => data.groups.find((g) => g.slug === slug)?.name ?? slug;
	function told(line: PlannedLine): string {
		if (line.kind === 'wrong') return line.trouble;
		const parts = [`${line.name}, ${line.email}`];
		if (line.formerName !== undefined) parts.push(`was called ${line.formerName}`);
		if (line.group) {
			parts.push(`${groupName(line.group)} ${spanWords(line)}`);
			if (line.kind === 'changed' && line.former) parts.push(`was ${spanWords(line.former)}`);
		}
		return parts.join('; ');
	}
</script>

<svelte:head><title>Members from a table, {data.site.name}</title></svelte:head>
<section>
	<p class="soft"><a href="/desk/people">People</a></p>
	<h1>Members from a table</h1>
	<p class="soft lead">
		A CSV file with a line of headings and a line for each membership. People are known by their e-mail addresses. Nothing is changed before you have seen what
		would be, and nobody’s account is taken away by a table. A column that is left out changes nothing; an empty cell in one that is there clears what stood
		there.
	</p>
	<label class="btn main mt-3">
		{file ? 'Choose another file' : 'Choose the file'}
		<Fileupload
			accept=".csv,text/csv,text/plain"
			unseen
			onchange={(e) => {
				choose(e.currentTarget.files?.[0]);
				// the same file, put right, can be chosen again
				e.currentTarget.value = '';
			}}
		/>
	</label>
	{#if file}<span class="soft ml-3">{file.name}{preview ? `, ${preview.encoding}` : ''}</span>{/if}
	{#if trouble}<p class="trouble mt-3" role="alert">{trouble}</p>{/if}
	{#if busy && !preview}<p class="soft mt-3" role="status">Looking at the table</p>{/if}
	{#if preview}
		<h2>What the columns mean</h2>
		<div class="columns">
			{#each preview.header as heading, i (i)}
				<label
					>{heading || `Column ${i + 1}`}
					<Select value={meaningOf(i)} onchange={(e) => setMeaning(i, e.currentTarget.value)}>
						<option value="">left out</option>
						{#each meanings as meaning (meaning)}<option value={meaning}>{meaningWords[meaning]}</option>{/each}
					</Select></label
				>
			{/each}
			<label
				>Days are written as
				<Select value={preview.dayOrder} onchange={(e) => send(true, { dayOrder: e.currentTarget.value as DayOrder })}>
					{#each dayOrders as order (order)}<option value={order}>{dayWords[order]}</option>{/each}
				</Select></label
			>
		</div>
		<label class="make"><Checkbox bind:checked={makeGroups} onchange={() => send(true)} /> Make groups that there are none of yet</label>
		<label class="make"
			><Checkbox bind:checked={end} onchange={() => send(true)} /> The table is the whole list of the groups that it names: end the memberships that it does not have</label
		>
		<h2>What it would change</h2>
		{#if preview.endless}<p class="trouble" role="alert">
				{counted(preview.endless, 'membership becomes', 'memberships become')} endless: their cells in the column of until days are empty.
			</p>{/if}
		<p class="say" role="status">
			{counted(preview.added, 'line adds a member', 'lines add members')}, {counted(preview.changed, 'changes one', 'change one')}, {counted(
				preview.same,
				'changes nothing',
				'change nothing'
			)}{preview.wrong ? `, ${counted(preview.wrong, 'is wrong', 'are wrong')}` : ''}{preview.ended.length
				? `, and ${counted(preview.ended.length, 'membership ends', 'memberships end')}`
				: ''}.{preview.newGroups.length ? ` New groups: ${preview.newGroups.join(', ')}.` : ''}
		</p>
		{#if preview.wrong}<p class="trouble mt-3">
				While lines are wrong, nothing can be brought in: put them right in the file and choose it again, or change what the columns mean.
			</p>{/if}
		<p class="my-3">
			<Button kind="main" disabled={busy || preview.wrong > 0 || preview.added + preview.changed + preview.ended.length === 0} onclick={() => send(false)}
				>{preview.added + preview.changed > 0 || preview.ended.length === 0
					? `Bring in ${counted(preview.added + preview.changed, 'line', 'lines')}`
					: ''}{preview.ended.length
					? `${preview.added + preview.changed ? ' and end' : 'End'} ${counted(preview.ended.length, 'membership', 'memberships')}`
					: ''}</Button
			>
		</p>
		{#if preview.ended.length}
			<h3>Memberships that end</h3>
			<Table class="rows ends">
				<TableHead><TableHeadCell>Who</TableHeadCell><TableHeadCell>Group</TableHeadCell><TableHeadCell>Its last day</TableHeadCell></TableHead>
				<TableBody>
					{#each preview.ended.slice(0, shownEnded) as ended, i (i)}
						<TableBodyRow
							><TableBodyCell>{ended.name}, {ended.email}</TableBodyCell><TableBodyCell>{groupName(ended.group)}, {spanWords(ended)}</TableBodyCell
							><TableBodyCell>{ended.last ?? 'none: it has not begun'}</TableBodyCell></TableBodyRow
						>
					{/each}
				</TableBody>
			</Table>
			{#if preview.ended.length > shownEnded}<p class="soft mt-2">And {preview.ended.length - shownEnded} more.</p>{/if}
			<h3>Lines of the table</h3>
		{/if}
		<Table class="rows">
			<TableHead><TableHeadCell class="n">Line</TableHeadCell><TableHeadCell></TableHeadCell><TableHeadCell>What would be</TableHeadCell></TableHead>
			<TableBody>
				{#each preview.lines as line (line.line)}
					<TableBodyRow class={line.kind}
						><TableBodyCell class="n">{line.line}</TableBodyCell><TableBodyCell>{kindWords[line.kind]}</TableBodyCell><TableBodyCell>{told(line)}</TableBodyCell
						></TableBodyRow
					>
				{/each}
			</TableBody>
		</Table>
		{#if preview.added + preview.changed + preview.same + preview.wrong > preview.lines.length}<p class="soft mt-2">
				{counted(preview.lines.length, 'line is shown', 'lines are shown')}, those that are wrong first.
			</p>{/if}
	{/if}
</section>

<style>
	section {
		max-width: 980px;
		padding: 16px 18px 60px;
	}
	.lead {
		max-width: 68ch;
		margin-top: 6px;
	}
	h2 {
		font-size: 17px;
		margin: 22px 0 8px;
	}
	h3 {
		font-size: 14.5px;
		margin: 16px 0 6px;
	}
	.columns {
		display: flex;
		flex-wrap: wrap;
		gap: 10px;
	}
	.columns label {
		display: grid;
		gap: 3px;
		font-size: 12.5px;
		color: var(--ink-soft);
		min-width: 130px;
	}
	.make {
		display: flex;
		gap: 7px;
		align-items: center;
		margin-top: 12px;
	}
	section :global(.rows th.n),
	section :global(.rows td.n) {
		width: 64px;
	}
	section :global(tr.wrong td) {
		color: var(--brick);
		background: var(--brick-wash);
	}
	section :global(tr.same td) {
		color: var(--ink-soft);
	}
</style>
