<!-- Fields filled from a table (CSV): what it would change is shown before it does. -->
<script lang="ts">
	import { counted } from '#core/text/list';
	import { act, answerTo } from '$lib/ui/parts/act';
	import { call, type Answer } from '$lib/ui/parts/api';
	import { Button, Fileupload } from '$lib/ui/parts/controls';

	let { done }: { done: () => void } = $props();
	let file = $state.raw<File | null>(null);
	let plan = $state.raw<Answer<'post /fields'> | null>(null);
	const send = (table: File, query: { preview?: string }) => call('post /fields', { body: new Blob([table], { type: 'text/csv' }), query });

	async function look(table: File | undefined) {
		file = table ?? null;
		plan = table ? ((await answerTo(send(table, { preview: '' }))) ?? null) : null;
	}
	async function fill(table: File) {
		const made = await act(
			({ changed }) => `Fields of ${counted(changed, 'document', 'documents')} filled in.`,
			() => send(table, {}),
			({ undo }) => call('post /bulk/undo', { body: { undo } })
		);
		if (!made) return;
		plan = file = null;
		done();
	}
</script>

<label class="btn w-full"
	>Fields from a table<Fileupload
		unseen
		accept=".csv,text/csv"
		aria-label="A table (CSV) with a line for each document"
		onchange={(e) => {
			const table = e.currentTarget.files?.[0];
			e.currentTarget.value = '';
			void look(table);
		}}
	/></label
>
<p class="soft">CSV: a column “document” with the address of each, the others called as the fields. “-” takes a value away.</p>
{#if plan && file}
	<div class="plan" role="status">
		<p>
			<strong>{file.name}</strong>: {counted(plan.changed, 'document', 'documents')} would change{plan.same ? `, ${plan.same} say so already` : ''}.
			{plan.leftOut.length ? `Left out: ${plan.leftOut.join(', ')}.` : ''}
		</p>
		{#if plan.wrong.length}
			<p>Nothing can be filled in as long as a line is wrong:</p>
			<ul>
				{#each plan.wrong.slice(0, 8) as wrong (wrong.line)}<li>Line {wrong.line}: {wrong.words}</li>{/each}
				{#if plan.wrong.length > 8}<li>and {plan.wrong.length - 8} more</li>{/if}
			</ul>
		{:else if plan.changed}<Button kind="main" onclick={() => file && fill(file)}>Fill them in</Button>{/if}
	</div>
{/if}

<style>
	.plan {
		display: grid;
		gap: 6px;
		padding: 8px 0;
	}
	li {
		overflow-wrap: anywhere;
	}
	label {
		position: relative;
		cursor: pointer;
		display: grid;
		place-items: center;
	}
	label:focus-within {
		outline: 3px solid var(--verdigris);
	}
</style>
