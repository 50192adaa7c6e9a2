<!-- Addresses of an old website: pasted as a list, looked at before they lead anywhere; who still comes by them; and what was asked for and is not here. -->
<script lang="ts">
	import { Button, Fileupload, Input, Textarea } from '$lib/ui/parts/controls';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { isPattern, readFormer } from '#core/placing/former-address';
	import { counted } from '#core/text/list';
	import { act } from '$lib/ui/parts/act';
	import { ApiTrouble, call, type Answer } from '$lib/ui/parts/api';
	import { dayText } from '$lib/ui/parts/when';

	let { data } = $props();
	let text = $state('');
	let seen = $state<Answer<'post /former-addresses'>['items'] | null>(null);
	const lines = $derived(readFormer(text));
	const read = $derived(lines.flatMap((line) => line.read ?? []));
	const unread = $derived(lines.filter((line) => line.read === null));
	const of = (outcome: string) => (seen ?? []).filter((line) => line.outcome === outcome);
	const ready = $derived(of('new').length + of('changed').length);
	/** What is typed beside an address that was missed: the document that it leads to. */
	let targets = $state<Record<string, string>>({});

	const look = () => act('', async () => (seen = (await call('post /former-addresses', { body: { items: read, preview: true } })).items));
	const set = () =>
		act(`${counted(ready, 'address leads', 'addresses lead')} to ${ready === 1 ? 'its document' : 'their documents'} from now on.`, async () => {
			await call('post /former-addresses', { body: { items: read } });
			[text, seen] = ['', null];
		});
	const mend = (path: string) =>
		act(`${path} leads there from now on.`, async () => {
			const [done] = (await call('post /former-addresses', { body: { items: [{ path, document: (targets[path] ?? '').trim().replace(/^.*\/d\//, '') }] } }))
				.items;
			if (done?.outcome === 'refused') throw new ApiTrouble(`It leads nowhere yet: ${done.why ?? ''}.`);
		});
	const drop = (id: string, path: string) =>
		act(
			`${path} leads nowhere any more.`,
			() => call('delete /former-addresses/{id}', { path: { id } }),
			({ before }) => call('post /former-addresses', { body: { items: [before] } })
		);
	let sitemap = $state('');
	let reading = $state(false);
	/** Files of the other website for which no document has the name, as its sitemap was read. */
	let nameless = $state<readonly string[] | null>(null);
	async function fromSitemap() {
		reading = true;
		await act('', async () => {
			const { items, passedOver } = await call('post /former-addresses/elsewhere', { body: { url: sitemap } });
			if (!items.length)
				throw new ApiTrouble(`Nothing new: of its ${counted(passedOver, 'address', 'addresses')} none is a document’s that leads nowhere yet.`);
			text = items.flatMap(({ path, document }) => (document === null ? [] : [`${path}, ${document}`])).join('\n');
			nameless = items.flatMap(({ path, document }) => (document === null ? [path] : []));
			seen = null;
		});
		reading = false;
	}
	async function fromFile(event: Event) {
		const [file] = (event.currentTarget as HTMLInputElement).files ?? [];
		if (file) text = await file.text();
		seen = null;
	}
</script>

<svelte:head><title>Former addresses, {data.site.name}</title></svelte:head>
<section>
	<p class="soft"><a href="/desk/upkeep">Upkeep</a></p>
	<h1>Former addresses</h1>
	<p class="soft lead">
		Where files lay on an old website. Whoever follows a link to one is led to its document for good, if its door lets them know of it. Point the old website’s
		name at this one, and the links that others made live on.
	</p>
	<form
		class="mend sitemap"
		onsubmit={(e) => {
			e.preventDefault();
			void fromSitemap();
		}}
	>
		<Input bind:value={sitemap} type="url" required placeholder="https://old.example.org/sitemap.xml" aria-label="Sitemap of the old website" />
		<Button type="submit" disabled={reading}>{reading ? 'Reading it …' : 'Read its sitemap'}</Button>
	</form>
	{#if nameless}
		<div class="say" role="status">
			{#if text}<p>The files whose names documents have here stand below: look them over, then have them lead there.</p>{/if}
			{#if nameless.length}
				<details>
					<summary>{counted(nameless.length, 'file has a name', 'files have names')} that no document has</summary>
					<ul>
						{#each nameless.slice(0, 200) as path (path)}<li><code>{path}</code></li>{/each}
					</ul>
					{#if nameless.length > 200}<p class="soft">and {nameless.length - 200} more</p>{/if}
				</details>
			{/if}
		</div>
	{/if}
	<form
		onsubmit={(e) => {
			e.preventDefault();
			void (seen && ready ? set() : look());
		}}
	>
		<label
			>A line for each: the old address, and the document’s address here
			<Textarea rows={5} bind:value={text} oninput={() => (seen = null)} placeholder="/files/2019/Guide to the locks.pdf, cruising-guide" /></label
		>
		<p class="soft">
			A star stands for any letters of one step, two for any steps: <code>/files/2019/*, yearbook</code>. With a star instead of the document,
			<code>/files/**/*.pdf, *</code> leads to the document that has the file’s name.
		</p>
		<label>or a table (CSV) with these two columns <Fileupload accept=".csv,.tsv,.txt,text/csv,text/plain" onchange={fromFile} /></label>
		{#if unread.length}<p class="trouble">
				{counted(unread.length, 'line', 'lines')} cannot be read and would be left out: {unread
					.slice(0, 5)
					.map((line) => `line ${line.line} (${line.text.slice(0, 60)})`)
					.join(', ')}{unread.length > 5 ? ', …' : ''}.
			</p>{/if}
		{#if seen}
			<div class="say" role="status">
				<p>
					{counted(of('new').length, 'new address', 'new addresses')}{of('changed').length ? `, ${of('changed').length} that led elsewhere` : ''}{of('same')
						.length
						? `, ${of('same').length} there already`
						: ''}{of('refused').length ? `, ${of('refused').length} that cannot be` : ''}.
				</p>
				{#each (seen ?? []).filter(({ path, outcome }) => isPattern(path) && outcome !== 'refused') as line (line.path)}
					{@const led = line.takes.filter(({ document }) => document !== null)}
					<p>
						<code>{line.path}</code>
						{#if led.length}
							takes {counted(led.length, 'address', 'addresses')} of those asked for and not here: {led
								.slice(0, 5)
								.map(({ path, document }) => `${path} → ${document}`)
								.join(', ')}{led.length > 5 ? ', …' : ''}
						{:else}takes none of what was asked for so far{/if}{#if led.length < line.takes.length}; for {line.takes.length - led.length} no document has the name{/if}.
					</p>
				{/each}
				{#each [...of('refused'), ...of('changed')].slice(0, 20) as line (line.path + line.document)}<p class="soft">{line.path}: {line.why}</p>{/each}
			</div>
		{/if}
		<Button type="submit" kind="main" disabled={!read.length || (seen !== null && !ready)}
			>{seen && ready ? `Have ${counted(ready, 'address', 'addresses')} lead there` : 'Look what would come of it'}</Button
		>
	</form>

	<h2>Asked for and not here</h2>
	{#if data.missed.length}
		<p class="soft">Addresses that look like documents, or to which other websites lead. Say which document each means, and it leads there.</p>
		<Table class="rows">
			<TableHead
				><TableHeadCell>Address</TableHeadCell><TableHeadCell class="n">Times</TableHeadCell><TableHeadCell>Last</TableHeadCell><TableHeadCell
					>Document</TableHeadCell
				></TableHead
			>
			<TableBody>
				{#each data.missed as miss (miss.path)}
					<TableBodyRow>
						<TableBodyCell class="path">{miss.path}</TableBodyCell>
						<TableBodyCell class="n">{miss.asked}</TableBodyCell>
						<TableBodyCell
							>{dayText(miss.lastAt, data.site.zone)}{#if miss.lastFrom}<small>from {miss.lastFrom}</small>{/if}</TableBodyCell
						>
						<TableBodyCell>
							<form
								class="mend"
								onsubmit={(e) => {
									e.preventDefault();
									void mend(miss.path);
								}}
							>
								<Input bind:value={targets[miss.path]} required placeholder="cruising-guide" aria-label="Document that {miss.path} means" />
								<Button type="submit">Lead there</Button>
							</form>
						</TableBodyCell>
					</TableBodyRow>
				{/each}
			</TableBody>
		</Table>
	{:else}<p class="soft">Nothing so far.</p>{/if}

	<h2>Addresses that lead to documents</h2>
	<form class="mend" role="search">
		<Input name="q" value={data.q} placeholder="part of an address" aria-label="Former addresses with this in them" />
		<Button type="submit">Find</Button>
	</form>
	{#if data.items.length}
		<Table class="rows">
			<TableHead
				><TableHeadCell>Address</TableHeadCell><TableHeadCell>Leads to</TableHeadCell><TableHeadCell class="n">Came by it</TableHeadCell><TableHeadCell
					>Last</TableHeadCell
				><TableHeadCell></TableHeadCell></TableHead
			>
			<TableBody>
				{#each data.items as line (line.id)}
					<TableBodyRow>
						<TableBodyCell class="path">{line.path}</TableBodyCell>
						<TableBodyCell
							>{#if line.title === null}the document of the name{:else}<a href="/desk/documents/{line.document}">{line.title}</a>{/if}</TableBodyCell
						>
						<TableBodyCell class="n">{line.asked}</TableBodyCell>
						<TableBodyCell
							>{line.lastAt ? dayText(line.lastAt, data.site.zone) : 'Nobody yet'}{#if line.lastFrom}<small>from {line.lastFrom}</small>{/if}</TableBodyCell
						>
						<TableBodyCell class="n"><Button kind="quiet" onclick={() => drop(line.id, line.path)}>Let it go</Button></TableBodyCell>
					</TableBodyRow>
				{/each}
			</TableBody>
		</Table>
		{#if data.next}<p class="mt-3"><a href="?q={encodeURIComponent(data.q)}&after={encodeURIComponent(data.next)}">Further</a></p>{/if}
	{:else}<p class="soft">{data.q ? `None with “${data.q}” in it.` : 'None yet.'}</p>{/if}
</section>

<style>
	section {
		max-width: 1120px;
		padding: 16px 18px 60px;
	}
	h2 {
		margin: 28px 0 8px;
	}
	.lead {
		max-width: 70ch;
		margin: 6px 0 16px;
	}
	form:not(.mend) {
		display: grid;
		gap: 12px;
		max-width: 820px;
		justify-items: start;
	}
	form:not(.mend) > label {
		display: grid;
		gap: 4px;
		width: 100%;
	}
	.mend {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
	}
	.sitemap :global(input) {
		width: min(420px, 80vw);
	}
	.sitemap,
	.sitemap + .say {
		margin-bottom: 14px;
	}
	section :global(table) {
		margin-top: 10px;
	}
	section :global(td small) {
		display: block;
	}
	section :global(td.path) {
		overflow-wrap: anywhere;
	}
</style>
