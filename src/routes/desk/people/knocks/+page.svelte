<!-- Knocks: who asks to be let in where, and the answer. -->
<script lang="ts">
	import { dayOf } from '#core/access/hours';
	import { Button, Day, Select, Textarea } from '$lib/ui/parts/controls';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { refresh } from '$lib/ui/parts/refresh';
	import { counted } from '#core/text/list';
	import { refusalWords } from '#core/access/refusal';
	import type { RefusedCode } from '#core/access/decide';
	import type { KnockView } from '$lib/server/access/knocks';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import FirstMet from '$lib/ui/parts/FirstMet.svelte';
	import { dayText, timeText } from '$lib/ui/parts/when';

	let { data } = $props();
	const waiting = $derived(data.knocks.filter((k) => !k.answer));
	const answered = $derived(data.knocks.filter((k) => k.answer));
	let answering = $state<{ id: string; how: 'group' | 'key' | 'declined' } | null>(null);
	let group = $state('');
	let until = $state('');
	let words = $state('');
	let trouble = $state('');
	let busy = $state(false);

	function begin(knock: KnockView, how: 'group' | 'key' | 'declined') {
		answering = { id: knock.id, how };
		group = knock.groups[0]?.slug ?? data.groups[0]?.slug ?? '';
		[until, words, trouble] = ['', '', ''];
	}
	/** The groups that the door admits, or all where it admits none. */
	const choices = (knock: KnockView) => (knock.groups.length ? knock.groups : data.groups);

	async function answer(event: SubmitEvent, knock: KnockView) {
		event.preventDefault();
		// its buttons are there while it is
		const { how } = answering!;
		busy = true;
		await act(
			({ mailed }) =>
				`${knock.email} is ${how === 'declined' ? 'declined' : 'let in'}${mailed ? ' and told so by mail' : '. The mail could not be sent: tell them yourself'}.`,
			() =>
				call('post /knocks/{id}/answer', {
					path: { id: knock.id },
					body:
						how === 'declined'
							? { do: how, ...(words.trim() ? { words } : {}) }
							: how === 'group'
								? { do: how, group, ...(until ? { until } : {}) }
								: { do: how, ...(until ? { until } : {}) }
				}),
			null,
			{
				trouble: (said) => (trouble = said),
				show: async () => {
					answering = null;
					await refresh();
				}
			}
		);
		busy = false;
	}
	const answerWords = { group: 'let in by a group', key: 'let in by a key', declined: 'declined' } as const;
</script>

<svelte:head><title>Knocks, {data.site.name}</title></svelte:head>
<section>
	<p class="soft"><a href="/desk/people">People</a></p>
	<h1>Knocks</h1>
	<FirstMet word="Knock" />
	{#if !data.knocks.length}
		<p class="soft lead">Nobody has knocked. Whoever is turned away from a document may ask to be let in, where its words for those turned away allow it.</p>
	{:else}
		<p class="soft">{waiting.length ? `${counted(waiting.length, 'knock waits', 'knocks wait')} for an answer` : 'All are answered'}</p>
		<ul>
			{#each waiting as knock (knock.id)}
				<li class="panel">
					<p class="who">
						<b>{knock.person?.name ?? knock.email}</b>
						<span class="soft"
							>{knock.person
								? `${knock.email}, a member${knock.person.signedIn ? '' : ', but was not signed in: anybody can give that address'}`
								: 'Not a member'}; {timeText(knock.at, data.zone)}</span
						>
					</p>
					<blockquote>{knock.words}</blockquote>
					<p class="soft">
						At <a href="/desk/documents/{knock.document.slug}">{knock.document.title}</a>. Turned away as: {refusalWords(
							knock.reason as RefusedCode,
							data.zone,
							{
								at: Date.now()
							}
						).heading.toLowerCase()}
					</p>
					{#if answering?.id === knock.id}
						<form class="fields" onsubmit={(e) => answer(e, knock)}>
							{#if answering.how === 'group'}
								<label
									>Group <Select bind:value={group}
										>{#each choices(knock) as g (g.slug)}<option value={g.slug}>{g.name}</option>{/each}</Select
									></label
								>
							{/if}
							{#if answering.how !== 'declined'}<label
									>Last day, if there is one <Day label="Last day, if there is one" bind:value={until} least={dayOf(Date.now(), data.zone)} /></label
								>
							{:else}<label class="wide">Words for the mail, if any <Textarea rows={2} maxlength={2000} bind:value={words}></Textarea></label>{/if}
							{#if answering.how === 'group' && !knock.person}<p class="soft wide">They become a member and are invited by mail to choose a password.</p>{/if}
							<p class="wide checks">
								<Button type="submit" kind="main" disabled={busy || (answering.how === 'group' && !group)}
									>{answering.how === 'declined' ? 'Decline' : answering.how === 'key' ? 'Send a key' : 'Put in the group'}</Button
								>
								<Button kind="quiet" onclick={() => (answering = null)}>Leave it waiting</Button>
							</p>
							{#if trouble}<p class="trouble wide" role="alert">{trouble}</p>{/if}
						</form>
					{:else}
						<p class="flex flex-wrap gap-2">
							{#if data.groups.length}<Button onclick={() => begin(knock, 'group')}>Put in a group</Button>{/if}
							<Button onclick={() => begin(knock, 'key')}>Send a key</Button>
							<Button onclick={() => begin(knock, 'declined')}>Decline</Button>
						</p>
					{/if}
				</li>
			{/each}
		</ul>
		{#if answered.length}
			<h2>Answered</h2>
			<Table class="rows">
				<TableHead><TableHeadCell>Who</TableHeadCell><TableHeadCell>Where</TableHeadCell><TableHeadCell>Answer</TableHeadCell></TableHead>
				<TableBody>
					{#each answered as knock (knock.id)}
						<TableBodyRow>
							<TableBodyCell>{knock.person?.name ?? knock.email}<small>{knock.words}</small></TableBodyCell>
							<TableBodyCell><a href="/desk/documents/{knock.document.slug}">{knock.document.title}</a></TableBodyCell>
							<TableBodyCell
								>{knock.answer ? answerWords[knock.answer] : ''}<small
									>{knock.answeredAt ? dayText(knock.answeredAt, data.zone) : ''}{knock.answeredBy ? ` by ${knock.answeredBy}` : ''}</small
								></TableBodyCell
							>
						</TableBodyRow>
					{/each}
				</TableBody>
			</Table>
		{/if}
	{/if}
</section>

<style>
	section {
		max-width: 860px;
		padding: 16px 18px 60px;
	}
	.lead {
		max-width: 60ch;
		margin-top: 6px;
	}
	h2 {
		font-size: 17px;
		margin: 26px 0 8px;
	}
	li {
		margin-top: 12px;
		background: var(--sheet);
		display: grid;
		gap: 8px;
	}
	.who span {
		margin-left: 8px;
		font-size: 13px;
	}
	blockquote {
		border-left: 3px solid var(--brass-bright);
		padding-left: 10px;
		font-family: var(--title);
		white-space: pre-line;
	}
	small {
		display: block;
		color: var(--ink-soft);
	}
</style>
