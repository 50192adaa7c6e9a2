<!-- A member in the sheet: name, memberships with their days, what they may open, invitation, suspending, taking out. -->
<script lang="ts">
	import { Button, Day, Input, Select } from '$lib/ui/parts/controls';
	import { untrack } from 'svelte';
	import { goWith, refresh } from '$lib/ui/parts/refresh';
	import { counted } from '#core/text/list';
	import type { MemberChange, MemberView } from '$lib/server/people/members';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import { dayText, timeText } from '$lib/ui/parts/when';

	let {
		member,
		groups,
		opens,
		zone,
		today,
		away
	}: {
		member: MemberView;
		groups: readonly { slug: string; name: string }[];
		/** What they may open today. */
		opens: readonly { slug: string; title: string }[];
		zone: string;
		today: string;
		/** The address without this sheet. */
		away: string;
	} = $props();

	type Row = { group: string; from: string; until: string };
	const rowsOf = (view: MemberView): Row[] => view.memberships.map((m) => ({ group: m.group, from: m.from ?? '', until: m.until ?? '' }));
	let [name, email, rows] = $state(untrack(() => [member.name, member.email, rowsOf(member)] as [string, string, Row[]]));
	let trouble = $state('');
	let address = $state('');
	let removing = $state(false);
	let shownId = '';
	$effect(() => {
		if (member.id === shownId) return;
		shownId = member.id;
		reset();
		[address, removing] = ['', false];
	});
	function reset() {
		[name, email, rows, trouble] = [member.name, member.email, rowsOf(member), ''];
	}
	const given = (rows: readonly Row[]) => rows.map((r) => ({ group: r.group, from: r.from || null, until: r.until || null }));
	const changed = $derived(name !== member.name || email !== member.email || JSON.stringify(rows) !== JSON.stringify(rowsOf(member)));
	const stands = (r: Row) => (r.from && r.from > today ? 'not begun' : r.until && r.until < today ? 'lapsed' : '');

	const say = (words: string) => (trouble = words);
	function change(wanted: MemberChange, words: string) {
		const { id } = member;
		const show = async () => {
			await refresh();
			reset();
		};
		return act(
			words,
			() => call('patch /members/{id}', { path: { id }, body: wanted }),
			({ before }) => call('patch /members/{id}', { path: { id }, body: before }),
			{ trouble: say, show }
		);
	}
	async function invite() {
		const made = await act(
			({ address, mailed }) =>
				mailed ? `An invitation is on its way to ${member.email}.` : address ? 'No mail is set up here: give them the address below.' : '',
			() => call('post /members/{id}/invite', { path: { id: member.id } }),
			null,
			{ trouble: say }
		);
		if (!made) return;
		address = made.address ?? '';
		if (!made.mailed && !address) trouble = 'The invitation could not be mailed. Where no mail is set up, an owner is shown its address.';
	}
	const remove = () =>
		act(`${member.name} is taken out.`, () => call('delete /members/{id}', { path: { id: member.id } }), null, {
			trouble: say,
			show: () => goWith(away, ['people'])
		});
</script>

<div class="top">
	<h2>{member.name}</h2>
	<a class="quiet" href={away}>Close</a>
</div>
<p class="soft">
	{member.suspended ? 'Suspended. ' : ''}Here since {dayText(member.createdAt, zone)}. {member.seenAt
		? `Last seen ${timeText(member.seenAt, zone)}.`
		: 'Not seen yet.'}
	{member.password ? '' : 'Has no password yet.'}
</p>
<form
	class="fields"
	onsubmit={(e) => {
		e.preventDefault();
		void change({ name, email, memberships: given(rows) }, `${name} is changed.`);
	}}
>
	<label class="wide">Name <Input bind:value={name} required maxlength={120} /></label>
	<label class="wide">E-mail address <Input type="email" bind:value={email} required maxlength={320} /></label>
	<h3 class="wide">Memberships</h3>
	{#each rows as row, i (i)}
		<fieldset class="wide membership" class:over={stands(row) !== ''}>
			<legend class="sr-only">Membership {i + 1}</legend>
			<Select bind:value={row.group} aria-label="Group">
				{#each groups as group (group.slug)}<option value={group.slug}>{group.name}</option>{/each}
			</Select>
			<label>From day <Day label="From day" bind:value={row.from} /></label>
			<label>Until day <Day label="Until day" bind:value={row.until} least={row.from || undefined} near={row.from || null} /></label>
			<Button kind="quiet" onclick={() => (rows = rows.filter((_, n) => n !== i))}>Take away</Button>
			{#if stands(row)}<em>{stands(row)}</em>{/if}
		</fieldset>
	{:else}<p class="wide soft">In no group.</p>{/each}
	<p class="wide checks">
		{#if groups.length}<Button onclick={() => (rows = [...rows, { group: groups[0]!.slug, from: today, until: '' }])}>Add a membership</Button>{/if}
		{#if changed}<Button type="submit" kind="main">Save</Button><Button kind="quiet" onclick={reset}>Leave it as it was</Button>{/if}
	</p>
	{#if trouble}<p class="trouble wide" role="alert">{trouble}</p>{/if}
</form>

<h3>May open today</h3>
{#if opens.length}
	<p class="soft">{counted(opens.length, 'document', 'documents')} besides what is ajar</p>
	<ul class="lines opens">
		{#each opens as document (document.slug)}<li><a href="/desk/documents/{document.slug}">{document.title}</a></li>{/each}
	</ul>
{:else}<p class="soft">Nothing at the moment.</p>{/if}
<p class="pt-2"><a href="/desk/readership/by/member/{member.id}">What they opened and read</a></p>

<h3>Sign-in</h3>
<div class="flex flex-wrap gap-2">
	{#if !member.suspended}<Button onclick={invite}>{member.password ? 'Mail a new choice of password' : 'Invite by mail'}</Button>{/if}
	<Button
		onclick={() =>
			change({ suspended: !member.suspended }, member.suspended ? `${member.name} can sign in again.` : `${member.name} is suspended and signed out.`)}
		>{member.suspended ? 'Let them sign in again' : 'Suspend'}</Button
	>
	{#if removing}
		<Button onclick={remove}>Take out for good</Button>
		<Button kind="quiet" onclick={() => (removing = false)}>Keep</Button>
	{:else}<Button onclick={() => (removing = true)}>Take out</Button>{/if}
</div>
{#if removing}<p class="say mt-2">
		The account, the memberships and the name on doors go. What was read stays in the ledger, without a name. This cannot be undone.
	</p>{/if}
{#if address}<p class="panel mt-2"><code>{address}</code></p>{/if}

<style>
	.top {
		display: flex;
		align-items: baseline;
		justify-content: space-between;
		gap: 10px;
	}
	h2 {
		font-size: 19px;
	}
	h3 {
		font-size: 15px;
		margin-top: 14px;
	}
	form {
		margin-top: 10px;
	}
	.membership {
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
		gap: 6px 10px;
		padding: 8px 10px;
		border: 1px solid var(--line);
		border-radius: var(--corner);
	}
	.membership :global(select) {
		grid-column: 1 / -1;
	}
	.membership :global(.quiet) {
		justify-self: start;
		font-size: 13px;
	}
	.over {
		background: var(--sunk);
	}
	em {
		font-style: normal;
		color: var(--ink-soft);
		font-size: 13px;
		text-align: right;
	}
	.opens {
		max-height: 200px;
		margin-top: 4px;
	}
	code {
		overflow-wrap: anywhere;
		font-size: 12.5px;
	}
</style>
