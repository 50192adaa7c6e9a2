<!-- Staff. -->
<script lang="ts">
	import { Button, Input, Select } from '$lib/ui/parts/controls';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { counted } from '#core/text/list';
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
		<Table class="rows">
			<TableHead
				><TableHeadCell>Name</TableHeadCell><TableHeadCell>E-mail</TableHeadCell><TableHeadCell>Role</TableHeadCell><TableHeadCell>Begun by them</TableHeadCell
				><TableHeadCell></TableHeadCell></TableHead
			>
			<TableBody>
				{#each data.staff as person (person.id)}
					<TableBodyRow>
						<TableBodyCell><strong>{person.name}</strong>{person.id === data.self ? ' (you)' : ''}</TableBodyCell>
						<TableBodyCell>{person.email}</TableBodyCell>
						<TableBodyCell>
							{#if data.owner}
								<form method="POST" action="?/role" class="flex gap-2">
									<input type="hidden" name="id" value={person.id} />
									<Select name="role" aria-label="Role of {person.name}" value={person.role} onchange={(e) => e.currentTarget.form?.requestSubmit()}>
										<option value="owner">Owner</option><option value="editor">Editor</option>
									</Select>
								</form>
							{:else}{roleWords[person.role]}{/if}
						</TableBodyCell>
						<TableBodyCell>{counted(person.begun, 'thing', 'things')}</TableBodyCell>
						<TableBodyCell class="n">
							{#if data.owner && data.staff.length > 1}<Button
									kind="quiet"
									aria-expanded={closing === person.id}
									onclick={() => (closing = closing === person.id ? null : person.id)}>Close account</Button
								>{/if}
						</TableBodyCell>
					</TableBodyRow>
					{#if closing === person.id}
						<TableBodyRow>
							<TableBodyCell colspan={5}>
								<form method="POST" action="?/close" class="flex flex-wrap items-center gap-3">
									<input type="hidden" name="id" value={person.id} />
									<span>{person.name} can no longer sign in. What they have begun goes to</span>
									<Select name="to" aria-label="Hand over to">
										{#each data.staff.filter((p) => p.id !== person.id) as heir (heir.id)}<option value={heir.id}>{heir.name}</option>{/each}
									</Select>
									<Button type="submit" kind="main">Close and hand over</Button>
									<Button onclick={() => (closing = null)}>Leave it open</Button>
								</form>
							</TableBodyCell>
						</TableBodyRow>
					{/if}
				{/each}
			</TableBody>
		</Table>
		{#if data.invited.length}
			<h2>Invited</h2>
			<Table class="rows">
				<TableHead
					><TableHeadCell>Name</TableHeadCell><TableHeadCell>E-mail</TableHeadCell><TableHeadCell>Role</TableHeadCell><TableHeadCell>Until</TableHeadCell
					><TableHeadCell></TableHeadCell></TableHead
				>
				<TableBody>
					{#each data.invited as invited (invited.id)}
						<TableBodyRow>
							<TableBodyCell>{invited.name}</TableBodyCell><TableBodyCell>{invited.email}</TableBodyCell><TableBodyCell>{roleWords[invited.role]}</TableBodyCell
							><TableBodyCell>{dayText(invited.expiresAt, data.site.zone)}</TableBodyCell>
							<TableBodyCell class="n"
								>{#if data.owner}<form method="POST" action="?/withdraw">
										<input type="hidden" name="id" value={invited.id} /><Button type="submit" kind="quiet">Withdraw</Button>
									</form>{/if}</TableBodyCell
							>
						</TableBodyRow>
					{/each}
				</TableBody>
			</Table>
		{/if}
	</section>
	{#if data.owner}
		<aside>
			<h2>Invite</h2>
			<form method="POST" action="?/invite" class="invite">
				<label>Name <Input name="name" required maxlength={120} /></label>
				<label>E-mail address <Input type="email" name="email" required /></label>
				<label
					>Role <Select name="role"
						><option value="editor">Editor: documents, pages, doors, people</option><option value="owner">Owner: also staff and settings</option></Select
					></label
				>
				<Button type="submit" kind="main">Invite</Button>
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
	section :global(.rows .field) {
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
