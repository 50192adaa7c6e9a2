<!-- Whose copy is this? -->
<script lang="ts">
	import { Button, Fileupload } from '$lib/ui/parts/controls';
	import { counted } from '#core/text/list';
	import { dayText } from '$lib/ui/parts/when';
	let { data, form } = $props();
	const said = $derived(
		form as {
			trouble?: string;
			name?: string;
			owners?: {
				number: string;
				name: string;
				kind: 'member' | 'key';
				person: string | null;
				document: { slug: string; title: string };
				edition: number;
				day: string;
				saves: number;
			}[];
		} | null
	);
</script>

<svelte:head><title>Whose copy is this, {data.site.name}</title></svelte:head>
<section>
	<p class="soft"><a href="/desk/upkeep">Upkeep</a></p>
	<h1>Whose copy is this?</h1>
	<p class="soft lead">
		Where a door stamps saved copies, each carries a name, a day and a number in the margin of its pages. Give a file that has turned up, and the number is read
		from its text. A scan or a photograph has no text; the name and the day can be read on it by eye.
	</p>
	<form method="POST" enctype="multipart/form-data" class="flex flex-wrap items-center gap-3">
		<Fileupload name="file" accept="application/pdf,.pdf" required aria-label="The file" />
		<Button type="submit" kind="main">Look</Button>
	</form>
	{#if said?.trouble}<p class="trouble mt-3" role="alert">{said.trouble}</p>{/if}
	{#if said?.owners}
		{#if said.owners.length}
			<ul class="lines mt-4" role="status">
				{#each said.owners as owner (owner.number)}
					<li>
						<span class="what"
							><b
								>{#if owner.person}<a href="/desk/people?person={owner.person}">{owner.name}</a>{:else}{owner.kind === 'key'
										? `The key “${owner.name}”`
										: owner.name}{/if}</b
							>
							saved <a href="/desk/documents/{owner.document.slug}">{owner.document.title}</a>, edition {owner.edition}, on {dayText(
								`${owner.day}T00:00Z`,
								'UTC'
							)}<small>No. {owner.number}, saved {counted(owner.saves, 'time', 'times')}</small></span
						>
					</li>
				{/each}
			</ul>
		{:else}<p class="say mt-4" role="status">“{said.name}” carries no stamp of this site in its text.</p>{/if}
	{/if}
</section>

<style>
	section {
		max-width: 760px;
		padding: 16px 18px 60px;
	}
	.lead {
		max-width: 64ch;
		margin: 6px 0 16px;
	}
</style>
