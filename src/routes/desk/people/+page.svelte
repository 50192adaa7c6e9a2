<script lang="ts">
	import Paging from '$lib/ui/parts/Paging.svelte';
	import { Button, Checkbox, Day, Input, Select } from '$lib/ui/parts/controls';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { page } from '$app/state';
	import { counted } from '#core/text/list';
	import ManyMembers from '$lib/ui/people/ManyMembers.svelte';
	import GroupSheet from '$lib/ui/people/GroupSheet.svelte';
	import { dayText } from '$lib/ui/parts/when';
	import PersonSheet from '$lib/ui/people/PersonSheet.svelte';
	let { data, form } = $props();
	const roleWords = { owner: 'Owner', editor: 'Editor', member: '' } as const;
	function address(change: Record<string, string | null>) {
		const params = new URLSearchParams(page.url.searchParams);
		if (!('person' in change)) params.delete('page');
		for (const [k, v] of Object.entries({ person: null, ...change })) {
			if (v === null) params.delete(k);
			else params.set(k, v);
		}
		return `/desk/people${params.size ? `?${params}` : ''}`;
	}
	// not broken over lines
	const day = (text: string) => dayText(text, data.zone).replaceAll(' ', '\u00a0');
	const span = (m: { from: string | null; until: string | null }) =>
		[m.from && `from ${day(m.from)}`, m.until && `until ${day(m.until)}`].filter(Boolean).join(' ');
	const lapsed = (m: { until: string | null }) => m.until !== null && m.until < data.today;
	const stands = $derived(
		(
			[
				['lapsing', 'Lapsing within 30 days'],
				['lapsed', 'Lapsed'],
				['suspended', 'Suspended']
			] as const
		).filter(([key]) => data.standings[key] || data.query.standing === key)
	);
	/** Members chosen for a change to all of them; a page of the list further they stay chosen. */
	let chosen = $state<string[]>([]);
	const onPage = $derived(data.people.items.filter(({ role }) => role === 'member').map(({ id }) => id));
	const whole = $derived(onPage.length > 0 && onPage.every((id) => chosen.includes(id)));
	const choose = (ids: readonly string[], on: boolean) => (chosen = on ? [...new Set([...chosen, ...ids])] : chosen.filter((id) => !ids.includes(id)));
	const narrowed = $derived(Boolean(data.query.q || data.query.group || data.query.standing));
</script>

<svelte:head><title>People, {data.site.name}</title></svelte:head>
<div class="hall">
	<section>
		<div class="head">
			<h1>People</h1>
			<p class="soft">{counted(data.people.total, 'person', 'people')}{narrowed ? ' shown' : ''}</p>
			<span class="ml-auto"></span>
			<Button href="/desk/people/import">From a table</Button>
			<Button href="/desk/people/members.csv" download>As a table</Button>
			<form role="search" aria-label="Find people">
				{#if data.query.group}<input type="hidden" name="group" value={data.query.group} />{/if}
				{#if data.query.standing}<input type="hidden" name="standing" value={data.query.standing} />{/if}
				<Input type="search" name="who" placeholder="Find a person" aria-label="Find a person" value={data.query.q} />
			</form>
		</div>
		<div class="flex flex-wrap gap-1.5 pb-3">
			<Button kind="pill" class={{ on: !data.query.group && !data.query.standing }} href={address({ group: null, standing: null })}>Everyone</Button>
			<Button kind="pill" href="/desk/people/staff">Staff</Button>
			<Button kind="pill" href="/desk/people/knocks">Knocks <i>{data.knocks}</i></Button>
			<Button kind="pill" href="/desk/people/keys">Keys</Button>
			{#each data.groups as group (group.slug)}<Button
					kind="pill"
					class={{ on: data.query.group === group.slug }}
					href={address({ group: data.query.group === group.slug ? null : group.slug })}>{group.name} <i>{group.people}</i></Button
				>{/each}
			{#each stands as [key, words] (key)}<Button
					kind="pill"
					class={{ on: data.query.standing === key }}
					href={address({ standing: data.query.standing === key ? null : key })}>{words} <i>{data.standings[key]}</i></Button
				>{/each}
		</div>
		{#if chosen.length}<ManyMembers members={chosen} groups={data.groups} none={() => (chosen = [])} />{/if}
		{#if data.people.items.length}
			<Table class="rows">
				<TableHead
					><TableHeadCell class="w-9"
						><Checkbox aria-label="Choose all members of this page" checked={whole} onchange={(e) => choose(onPage, e.currentTarget.checked)} /></TableHeadCell
					><TableHeadCell>Name</TableHeadCell><TableHeadCell>E-mail address</TableHeadCell><TableHeadCell>Groups</TableHeadCell></TableHead
				>
				<TableBody>
					{#each data.people.items as person (person.id)}
						<TableBodyRow class={{ on: data.chosen?.member.id === person.id || chosen.includes(person.id) }}>
							<TableBodyCell
								>{#if person.role === 'member'}<Checkbox
										aria-label="Choose {person.name}"
										checked={chosen.includes(person.id)}
										onchange={(e) => choose([person.id], e.currentTarget.checked)}
									/>{/if}</TableBodyCell
							>
							<TableBodyCell
								>{#if person.role === 'member'}<a class="name" href={address({ person: person.id })}>{person.name}</a>{:else}<strong>{person.name}</strong
									>{/if}{#if roleWords[person.role]}<small>{roleWords[person.role]}</small>{/if}{#if person.suspended}<small>Suspended</small
									>{/if}</TableBodyCell
							>
							<TableBodyCell>{person.email}</TableBodyCell>
							<TableBodyCell
								>{#each person.memberships as m, i (i)}<span class="m" class:over={lapsed(m)}
										>{m.group}{#if span(m)}<small> {span(m)}</small>{/if}</span
									>{:else}<span class="soft">{person.role === 'member' ? 'In no group' : 'Staff'}</span>{/each}</TableBodyCell
							>
						</TableBodyRow>
					{/each}
				</TableBody>
			</Table>
			<Paging
				label="Pages of the list"
				shown={data.query.page}
				length={data.pageLength}
				total={data.people.total}
				address={(n) => address({ page: String(n) })}
			/>
		{:else}<p class="soft py-8">Nobody fits. <a href="/desk/people">Show everyone</a></p>{/if}
	</section>
	<aside>
		{#if data.chosen}
			<PersonSheet
				member={data.chosen.member}
				opens={data.chosen.opens}
				groups={data.groups}
				zone={data.zone}
				today={data.today}
				away={address({ person: null })}
			/>
		{:else}
			{#if data.group}{#key data.group.slug}<GroupSheet group={data.group} use={data.group.use} />{/key}{/if}
			<h2>Add a member</h2>
			{#if form?.about === 'person'}<p class={form.trouble ? 'trouble' : 'say'} role={form.trouble ? 'alert' : 'status'}>{form.trouble ?? form.done}</p>{/if}
			<form class="fields add" method="POST" action="?/person{data.query.group ? `&group=${data.query.group}` : ''}">
				<label class="wide">Name <Input name="name" required value={form?.about === 'person' && form.trouble ? form.name : ''} /></label>
				<label class="wide"
					>E-mail address <Input type="email" name="email" required value={form?.about === 'person' && form.trouble ? form.email : ''} /></label
				>
				<label class="wide"
					>Group <Select name="group"
						><option value="">none yet</option>{#each data.groups as group (group.slug)}<option value={group.slug} selected={group.slug === data.query.group}
								>{group.name}</option
							>{/each}</Select
					></label
				>
				<label class="wide">From day <Day name="from" label="From day" /></label>
				<label class="wide">Until day <Day name="until" label="Until day" /></label>
				<label class="wide"
					>First password; left empty, they are invited by mail to choose one
					<Input type="password" name="password" minlength={data.passwordLength.min} autocomplete="new-password" /></label
				>
				<Button type="submit" kind="main">Add a member</Button>
			</form>
			{#if !data.group}
				<h2>Make a group</h2>
				{#if form?.about === 'group'}<p class={form.trouble ? 'trouble' : 'say'} role={form.trouble ? 'alert' : 'status'}>{form.trouble ?? form.done}</p>{/if}
				<form class="fields add" method="POST" action="?/group">
					<label class="wide">Name <Input name="name" required maxlength={120} placeholder="What the group is called" /></label>
					<Button type="submit">Make a group</Button>
				</form>
			{/if}
		{/if}
	</aside>
</div>

<style>
	.hall {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 360px;
		min-height: calc(100dvh - var(--lintel));
	}
	section {
		padding: 16px 18px;
	}
	aside {
		background: var(--sheet);
		border-left: 1px solid var(--line);
		padding: 18px 20px;
	}
	aside h2 {
		font-size: 17px;
		margin: 0 0 8px;
	}
	.add {
		margin: 8px 0 28px;
	}
	.add :global(.btn) {
		justify-self: start;
	}
	section :global(tr.on td) {
		background: var(--brass-wash);
	}
	.name {
		font-family: var(--title);
		font-weight: 600;
		color: inherit;
		text-decoration: none;
	}
	.name:hover {
		text-decoration: underline;
	}
	.m.over {
		color: var(--ink-soft);
		text-decoration: line-through;
	}
	.head {
		display: flex;
		align-items: baseline;
		flex-wrap: wrap;
		gap: 12px;
		margin-bottom: 12px;
	}
	section :global(td) {
		border-top: 1px solid var(--line);
		padding: 7px 12px;
		height: 42px;
	}
	strong {
		font-family: var(--title);
		font-weight: 600;
	}
	small {
		color: var(--ink-soft);
		font-size: 12px;
	}
	.m small {
		margin-left: 5px;
	}
	section :global(td > small) {
		display: block;
	}
	.m + .m::before {
		content: ', ';
	}
	@media (max-width: 900px) {
		.hall {
			grid-template-columns: 1fr;
		}
		aside {
			border-left: 0;
			border-top: 1px solid var(--line);
		}
	}
</style>
