<!-- Settings: what the owner sets of the site, and tokens by which programs speak to the API. -->
<script lang="ts">
	import { Button, Checkbox, Input, Textarea } from '$lib/ui/parts/controls';
	import { untrack } from 'svelte';
	import { refresh } from '$lib/ui/parts/refresh';
	import FieldsForm from '$lib/ui/documents/FieldsForm.svelte';
	import TurnedAwayForm from '$lib/ui/access/TurnedAwayForm.svelte';
	import SiteForms from '$lib/ui/placing/SiteForms.svelte';
	import { carriedOver } from '#core/site/carry-over';
	import { sizeWords } from '#core/documents/size';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import Webhooks from '$lib/ui/readership/Webhooks.svelte';
	import ReadershipForm from '$lib/ui/readership/ReadershipForm.svelte';
	import Tokens from '$lib/ui/people/Tokens.svelte';
	import Part from '$lib/ui/parts/Part.svelte';
	import { settingsParts } from '$lib/ui/parts/screens';
	import Websites from '$lib/ui/placing/Websites.svelte';

	let { data } = $props();
	let contact = $state(untrack(() => data.given.contact ?? ''));
	let origins = $state(untrack(() => (data.given.programOrigins ?? []).join('\n')));
	let before: Promise<unknown> = Promise.resolve();
	type Change = Record<string, unknown>;
	/** One change after the other, each carried over to what the one before it left: two that are pressed fast do not undo each other. */
	function setSite(change: Change | (() => Promise<Change>)): Promise<unknown> {
		const was: Change = $state.snapshot(data.given);
		const now = (): Change => ({ ...data.given });
		const made = async () => {
			const wanted = typeof change === 'function' ? await change() : change;
			return Object.fromEntries(Object.entries(wanted).map(([name, value]) => [name, carriedOver(was[name], value, now()[name])]));
		};
		return (before = before.then(() => set(made)));
	}
	const set = (change: () => Promise<Change>) =>
		act(
			'Set for the whole site.',
			async () => call('patch /site', { body: await change() }),
			({ before }) => call('patch /site', { body: before }),
			{
				show: async () => {
					await refresh('site', 'settings');
					contact = data.given.contact ?? '';
					origins = (data.given.programOrigins ?? []).join('\n');
				}
			}
		);
</script>

<svelte:head><title>Settings, {data.site.name}</title></svelte:head>
<div class="hall">
	<h1>Settings</h1>
	{#if data.owner}
		<nav aria-label="On this page">
			{#each settingsParts as [id, words] (id)}<a href="#{id}">{words}</a>{/each}
		</nav>
	{/if}
	<div class="parts">
		{#if data.owner}
			<SiteForms given={data.given} pages={data.pages} navigation={data.navigation} zones={data.zones} {setSite} />
			<Part id="websites" title="Passes of other websites">
				<Websites websites={data.websites} groups={data.groups} origin={data.origin} zone={data.site.zone} />
			</Part>
			<Part id="fields" title="Fields of documents, and their page">
				<FieldsForm fields={data.given.fields ?? []} documentPage={data.given.documentPage ?? 'plain'} {setSite} />
			</Part>
			<Part id="turned-away" title="Turned away">
				<p>
					What those are told whom a door does not admit, where the document or page has no words of its own. The reason is always told, and what is hidden
					stays hidden.
				</p>
				{#key JSON.stringify(data.given.turnedAway)}<TurnedAwayForm
						words={data.given.turnedAway ?? null}
						site
						save={(turnedAway) => setSite({ turnedAway })}
					/>{/key}
			</Part>
			<Part id="readers" title="What is kept of readers">
				<ReadershipForm given={data.given.readership ?? {}} set={(readership) => void setSite({ readership })} />
			</Part>
			<Part id="llms" title="Language models">
				<p>
					<a href="/llms.txt">llms.txt</a> names, for programs that read, the pages and documents that are open and listed, with the address of each text. What is
					kept stands in it no more than in the sitemap.
				</p>
				<Checkbox checked={data.given.llms !== false} onchange={() => void setSite({ llms: data.given.llms === false ? null : false })}
					>Have such a file</Checkbox
				>
			</Part>
			<Part id="weaknesses" title="Reports of weaknesses">
				<p>A mail or https address, told in <a href="/.well-known/security.txt">security.txt</a>. Without one there is no such file.</p>
				<form
					onsubmit={(e) => {
						e.preventDefault();
						void setSite({ contact: contact.trim() || null });
					}}
				>
					<Input bind:value={contact} maxlength={400} placeholder="security@example.org" aria-label="Where weaknesses are reported" />
					<Button type="submit">Set it</Button>
				</form>
			</Part>
			<Part id="told" title="Programs that are told what happens"><Webhooks webhooks={data.webhooks} zone={data.site.zone} /></Part>
		{/if}
		<Part id="tokens" title="Tokens for programs">
			<Tokens tokens={data.tokens} folders={data.folders} origin={data.origin} zone={data.site.zone} {...data.tokenDays} />
		</Part>
		{#if data.owner}
			<Part id="origins" title="Programs in browsers">
				<p>
					Origins of other websites whose pages may speak to the <a href="/api/docs">API</a> by a token, one in a line:
					<code>https://catalogue.example.org</code>. Nobody’s sign-in counts there. Programs that run elsewhere than in a browser need no entry.
				</p>
				<form
					class="origins"
					onsubmit={(e) => {
						e.preventDefault();
						void setSite({
							programOrigins: [
								...new Set(
									origins
										.toLowerCase()
										.split(/[\s,]+/)
										.map((o) => o.replace(/\/+$/, ''))
										.filter(Boolean)
								)
							]
						});
					}}
				>
					<Textarea rows={3} bind:value={origins} aria-label="Origins whose pages may speak to the API"></Textarea>
					<Button type="submit">Set it</Button>
				</form>
			</Part>
			<Part id="everything" title="Everything, to take away">
				<p>
					The whole site in one zip of open formats: the PDFs to the bit, and documents, pages, people, doors, keys and the ledger as lines of JSON and tables
					(CSV), with a README that explains them. Another site can take it in, and so can any program. It has the names of people and what they read: keep it
					as safe as a backup.
				</p>
				<p class="everything">
					<Button href="/desk/settings/everything.zip" download>Take everything out</Button>
					<span class="soft">{sizeWords(data.exportBytes)} of files</span>
				</p>
			</Part>
		{/if}
	</div>
</div>

<style>
	.origins {
		display: grid;
		gap: 10px;
		justify-items: start;
	}
	.origins :global(.field) {
		width: 380px;
		max-width: 100%;
	}
	.hall {
		max-width: 1120px;
		padding: 16px 18px 60px;
		display: grid;
		grid-template-columns: minmax(0, 1fr) 210px;
		column-gap: 48px;
	}
	h1 {
		grid-column: 1 / -1;
		margin-bottom: 14px;
	}
	.parts {
		grid-column: 1;
		grid-row: 2;
	}
	nav {
		grid-column: 2;
		grid-row: 2;
		align-self: start;
		position: sticky;
		top: calc(var(--lintel) + 14px);
		display: grid;
		border-left: 1px solid var(--line);
	}
	nav a {
		padding: 5px 0 5px 14px;
		text-decoration: none;
	}
	nav a:hover {
		text-decoration: underline;
	}
	@media (max-width: 900px) {
		.hall {
			display: block;
		}
		nav {
			position: static;
			display: flex;
			flex-wrap: wrap;
			gap: 0 18px;
			border: 0;
			margin-bottom: 14px;
		}
		nav a {
			padding-left: 0;
		}
	}
	form,
	.everything {
		display: flex;
		align-items: center;
		gap: 8px;
		margin: 14px 0;
	}
	form :global(.field) {
		flex: 1;
		max-width: 380px;
	}
</style>
