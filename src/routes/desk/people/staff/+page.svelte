<!-- Staff. -->
<script lang="ts">
	import { counted } from '#core/access/reach';
	import { dayText } from '$lib/ui/parts/when';
	let { data, form } = $props();
	const roleWords = { owner: 'Owner', editor: 'Editor' } as const;
	let closing = $state<string | null>(null);
	const said = $derived(form as { trouble?: string; done?: string; address?: string } | null);
</script>

<svelte:head><title>Staff, {data.site.name}</title></svelte:head>
<div class="hall">
	<section>
		<p><a href="/desk/people">Back to everyone</a></p>
		<h1>Staff</h1>
		{#if said?.trouble}<p class="trouble" role="alert">{said.trouble}</p>{/if}
		{#if said?.done}<p class="say" role="status">
				{said.done}{#if said.address}<br /><code class="break-all">{said.address}</code>{/if}
			</p>{/if}
		<table class="rows">
			<thead><tr><th>Name</th><th>E-mail</th><th>Role</th><th>Begun by them</th><th></th></tr></thead>
			<tbody>
				{#each data.staff as person (person.id)}
					<tr>
						<td><strong>{person.name}</strong>{person.id === data.self ? ' (you)' : ''}</td>
						<td>{person.email}</td>
						<td>
							{#if data.owner}
								<form method="POST" action="?/role" class="flex gap-2">
									<input type="hidden" name="id" value={person.id} />
									<select
										class="field"
										name="role"
										aria-label="Role of {person.name}"
										value={person.role}
										onchange={(e) => e.currentTarget.form?.requestSubmit()}
									>
										<option value="owner">Owner</option><option value="editor">Editor</option>
									</select>
								</form>
							{:else}{roleWords[person.role]}{/if}
						</td>
						<td>{counted(person.begun, 'thing', 'things')}</td>
						<td class="n">
							{#if data.owner && data.staff.length > 1}<button
									class="quiet"
									aria-expanded={closing === person.id}
									onclick={() => (closing = closing === person.id ? null : person.id)}>Close account</button
								>{/if}
						</td>
					</tr>
					{#if closing === person.id}
						<tr>
							<td colspan="5">
								<form method="POST" action="?/close" class="flex flex-wrap items-center gap-3">
									<input type="hidden" name="id" value={person.id} />
									<span>{person.name} can no longer sign in. What they have begun goes to</span>
									<select class="field" name="to" aria-label="Hand over to">
										{#each data.staff.filter((p) => p.id !== person.id) as heir (heir.id)}<option value={heir.id}>{heir.name}</option>{/each}
									</select>
									<button class="btn main">Close and hand over</button>
									<button type="button" class="btn" onclick={() => (closing = null)}>Leave it open</button>
								</form>
							</td>
						</tr>
					{/if}
				{/each}
			</tbody>
		</table>
		{#if data.invited.length}
			<h2>Invited</h2>
			<table class="rows">
				<thead><tr><th>Name</th><th>E-mail</th><th>Role</th><th>Until</th><th></th></tr></thead>
				<tbody>
					{#each data.invited as invited (invited.id)}
						<tr>
							<td>{invited.name}</td><td>{invited.email}</td><td>{roleWords[invited.role]}</td><td>{dayText(invited.expiresAt, data.site.zone)}</td>
							<td class="n"
								>{#if data.owner}<form method="POST" action="?/withdraw">
										<input type="hidden" name="id" value={invited.id} /><button class="quiet">Withdraw</button>
									</form>{/if}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
		{/if}
	</section>
	{#if data.owner}
		<aside>
			<h2>Invite</h2>
			<form method="POST" action="?/invite" class="invite">
				<label>Name <input class="field" name="name" required maxlength="120" /></label>
				<label>E-mail address <input class="field" type="email" name="email" required /></label>
				<label
					>Role <select class="field" name="role"
						><option value="editor">Editor: documents, pages, doors, people</option><option value="owner">Owner: also staff and settings</option></select
					></label
				>
				<button class="btn main">Invite</button>
			</form>
			<p class="soft">They choose their own password. An invitation holds for {data.invitationDays} days.</p>
		</aside>
	{/if}
</div>

<style>
	.hall {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 320px;
		gap: 30px;
		padding: 16px 18px 40px;
	}
	h1 {
		margin: 4px 0 12px;
	}
	h2 {
		font-size: 17px;
		margin: 18px 0 8px;
	}
	.say,
	.trouble {
		margin-bottom: 12px;
	}
	.rows .field {
		height: 30px;
		padding: 0 30px 0 8px;
	}
	.invite {
		display: grid;
		gap: 10px;
		margin-bottom: 10px;
	}
	.invite label {
		display: grid;
		gap: 2px;
	}
	@media (max-width: 900px) {
		.hall {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
