<script lang="ts">
	import { page } from '$app/state';
	import { counted } from '#core/access/reach';
	let { data, form } = $props();
	const roleWords = { owner: 'Owner', editor: 'Editor', member: '' } as const;
	const pages = $derived(Math.max(1, Math.ceil(data.people.total / data.pageLength)));
	function address(change: Record<string, string | null>) {
		const params = new URLSearchParams(page.url.searchParams);
		params.delete('page');
		for (const [k, v] of Object.entries(change)) {
			if (v === null) params.delete(k);
			else params.set(k, v);
		}
		return `/desk/people${params.size ? `?${params}` : ''}`;
	}
	const span = (m: { from: string | null; until: string | null }) => [m.from && `from ${m.from}`, m.until && `until ${m.until}`].filter(Boolean).join(' ');
</script>

<svelte:head><title>People, {data.site.name}</title></svelte:head>
<div class="hall">
	<section>
		<div class="head">
			<h1>People</h1>
			<p class="soft">{counted(data.people.total, 'person', 'people')}{data.query.q || data.query.group ? ' shown' : ''}</p>
			<form class="ml-auto" role="search">
				{#if data.query.group}<input type="hidden" name="group" value={data.query.group} />{/if}
				<input class="field" type="search" name="who" placeholder="Find a person" aria-label="Find a person" value={data.query.q} />
			</form>
		</div>
		<div class="flex flex-wrap gap-1.5 pb-3">
			<a class="pill" class:on={!data.query.group} href={address({ group: null })}>Everyone</a>
			<a class="pill" href="/desk/people/staff">Staff</a>
			{#each data.groups as group (group.slug)}<a
					class="pill"
					class:on={data.query.group === group.slug}
					href={address({ group: data.query.group === group.slug ? null : group.slug })}>{group.name} <i>{group.people}</i></a
				>{/each}
		</div>
		{#if data.people.items.length}
			<table class="rows">
				<thead><tr><th>Name</th><th>E-mail</th><th>Groups</th></tr></thead>
				<tbody>
					{#each data.people.items as person (person.id)}
						<tr>
							<td
								><strong>{person.name}</strong>{#if roleWords[person.role]}<small>{roleWords[person.role]}</small>{/if}</td
							>
							<td>{person.email}</td>
							<td
								>{#each person.memberships as m, i (i)}<span class="m"
										>{m.group}{#if span(m)}<small> {span(m)}</small>{/if}</span
									>{:else}<span class="soft">{person.role === 'member' ? 'In no group' : 'Staff'}</span>{/each}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
			{#if pages > 1}
				<nav class="flex items-center justify-center gap-3 pt-3" aria-label="Pages of the list">
					{#if data.query.page > 1}<a class="btn" href={address({ page: String(data.query.page - 1) })}>Back</a>{/if}
					<span class="soft">{data.query.page} of {pages}</span>
					{#if data.query.page < pages}<a class="btn" href={address({ page: String(data.query.page + 1) })}>Further</a>{/if}
				</nav>
			{/if}
		{:else}<p class="soft py-8">Nobody fits. <a href="/desk/people">Show everyone</a></p>{/if}
	</section>
	<aside>
		<h2>Add a member</h2>
		{#if form?.about === 'person'}<p class={form.trouble ? 'trouble' : 'say'} role={form.trouble ? 'alert' : 'status'}>{form.trouble ?? form.done}</p>{/if}
		<form method="POST" action="?/person">
			<label>Name <input class="field" name="name" required value={form?.about === 'person' && form.trouble ? form.name : ''} /></label>
			<label>E-mail address <input class="field" type="email" name="email" required value={form?.about === 'person' && form.trouble ? form.email : ''} /></label
			>
			<label
				>First password, at least {data.passwordLength.min} characters
				<input class="field" type="password" name="password" required minlength={data.passwordLength.min} autocomplete="new-password" /></label
			>
			<label
				>Group <select class="field" name="group"
					><option value="">none yet</option>{#each data.groups as group (group.slug)}<option value={group.slug} selected={group.slug === data.query.group}
							>{group.name}</option
						>{/each}</select
				></label
			>
			<div class="grid grid-cols-2 gap-2">
				<label>From day <input class="field" type="date" name="from" /></label>
				<label>Until day <input class="field" type="date" name="until" /></label>
			</div>
			<button class="btn main">Add a member</button>
		</form>
		<h2>Make a group</h2>
		{#if form?.about === 'group'}<p class={form.trouble ? 'trouble' : 'say'} role={form.trouble ? 'alert' : 'status'}>{form.trouble ?? form.done}</p>{/if}
		<form method="POST" action="?/group">
			<label>Name <input class="field" name="name" required maxlength="120" placeholder="Lock wardens" /></label>
			<button class="btn">Make a group</button>
		</form>
	</aside>
</div>

<style>
	.hall {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 320px;
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
	aside form {
		display: flex;
		flex-direction: column;
		gap: 9px;
		margin: 8px 0 28px;
	}
	aside label {
		display: flex;
		flex-direction: column;
		gap: 3px;
		font-size: 12.5px;
		color: var(--ink-soft);
	}
	aside .btn {
		align-self: flex-start;
	}
	.head {
		display: flex;
		align-items: baseline;
		gap: 12px;
		margin-bottom: 12px;
	}
	td {
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
	td > small {
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
