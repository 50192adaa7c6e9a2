<!-- Websites whose members read kept documents in frames there: which groups each may grant, its keys, shown once, and how one takes another's place. -->
<script lang="ts">
	import { Button, Checkbox, Input, Select, Textarea } from '$lib/ui/parts/controls';
	import { counted } from '#core/text/list';
	import type { WebsiteView } from '$lib/server/access/websites';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import { notify } from '$lib/ui/parts/notices.svelte';
	import { dayText } from '$lib/ui/parts/when';

	interface Props {
		websites: readonly WebsiteView[];
		groups: readonly { readonly slug: string; readonly name: string }[];
		/** This site's address: what passes are for. */
		origin: string;
		zone: string;
	}
	let { websites, groups, origin, zone }: Props = $props();
	const kinds = { secret: 'A secret of both (HS256)', public: 'Its public key (RS256, ES256)', jwks: 'The address of its keys (JWKS)' } as const;
	let website = $state('');
	let chosen = $state<string[]>([]);
	let kind = $state<keyof typeof kinds>('secret');
	let value = $state('');
	let made = $state<{ website: string; secret: string } | null>(null);
	const key = () => (kind === 'secret' ? { kind } : { kind, value });

	function add(event: SubmitEvent) {
		event.preventDefault();
		void act(`${website} may give passes.`, async () => {
			const { secret } = await call('post /websites', { body: { origin: website.trim(), groups: chosen, key: key() } });
			made = secret ? { website, secret } : null;
			[website, chosen, value] = ['', [], ''];
		});
	}
	const again = (w: WebsiteView) =>
		act(`${w.origin} has a second key. Both hold until you withdraw one.`, async () => {
			const { secret } = await call('post /websites/{id}/keys', { path: { id: w.id }, body: { kind: 'secret' } });
			made = secret ? { website: w.origin, secret } : null;
		});
	const grant = (w: WebsiteView, slug: string, on: boolean) => {
		const wanted = w.groups.map((g) => g.slug).filter((s) => s !== slug);
		void act(
			`What ${w.origin} may grant is changed, for whoever reads there now too.`,
			() => call('patch /websites/{id}', { path: { id: w.id }, body: { groups: on ? [...wanted, slug] : wanted } }),
			({ before }) => call('patch /websites/{id}', { path: { id: w.id }, body: before })
		);
	};
	async function copy() {
		// the button stands beside it
		await navigator.clipboard.writeText(made!.secret).then(
			() => notify('Copied.'),
			() => notify('The browser did not allow copying; select the secret and copy it.', { tone: 'wrong' })
		);
	}
</script>

<p>
	Another website’s members read kept documents in a frame on its pages: its own server says by a pass who is signed in there and in which of these groups they
	read. It has to be among the websites that may frame documents, too.
</p>
{#if made}
	<div class="say" role="status">
		<p>The secret of {made.website}. It is shown this once, and belongs on its server, never into a page:</p>
		<p class="flex flex-wrap items-center gap-3"><code>{made.secret}</code><Button onclick={copy}>Copy</Button></p>
	</div>
{/if}
<form onsubmit={add}>
	<label>The website<Input bind:value={website} required maxlength={300} placeholder="https://www.example.org" inputmode="url" /></label>
	<fieldset>
		<legend>Groups that it may grant</legend>
		{#each groups as group (group.slug)}<label class="choice"><Checkbox bind:group={chosen} value={group.slug} /> {group.name}</label>
		{:else}<p class="soft">There are no groups yet.</p>{/each}
	</fieldset>
	<label
		>What it signs by<Select bind:value={kind}
			>{#each Object.entries(kinds) as [value, name] (value)}<option {value}>{name}</option>{/each}</Select
		></label
	>
	{#if kind === 'public'}<label>Its public key, as PEM or JWK<Textarea bind:value rows={5} required maxlength={10_000} /></label>
	{:else if kind === 'jwks'}<label
			>Where its keys stand<Input bind:value required maxlength={300} placeholder="https://www.example.org/.well-known/jwks.json" inputmode="url" /></label
		>{/if}
	<Button type="submit" kind="main" disabled={!chosen.length}>Let it give passes</Button>
</form>
<ul aria-label="Websites that give passes">
	{#each websites as w (w.id)}
		<li>
			<h3>{w.origin}</h3>
			<p class="soft">
				{w.lastAt
					? `${counted(w.people, 'person has', 'people have')} come by its passes, the last ${dayText(w.lastAt, zone)}.`
					: 'Nobody has come by its passes yet.'}
				“iss” is <code>{w.origin}</code>, “aud” is <code>{origin}</code>.
			</p>
			<div class="flex flex-wrap gap-x-4" role="group" aria-label="Groups that {w.origin} may grant">
				{#each groups as group (group.slug)}
					{@const on = w.groups.some((g) => g.slug === group.slug)}
					<label class="choice"
						><Checkbox
							checked={on}
							disabled={on && w.groups.length === 1}
							onchange={(e) => grant(w, group.slug, (e.currentTarget as HTMLInputElement).checked)}
						/>
						{group.name} <code>{group.slug}</code></label
					>
				{/each}
			</div>
			{#each w.keys as k (k.id)}
				<p class="flex flex-wrap items-center gap-3">
					{kinds[k.kind]}, since {dayText(k.createdAt, zone)}, {k.usedAt ? `last used ${dayText(k.usedAt, zone)}` : 'not used yet'}
					{#if w.keys.length > 1}<Button
							kind="quiet"
							onclick={() => act('The key is withdrawn.', () => call('delete /websites/{id}/keys/{key}', { path: { id: w.id, key: k.id } }))}
							>Withdraw this key</Button
						>{/if}
				</p>
			{/each}
			<p class="flex flex-wrap gap-3">
				{#if w.keys.length < 2}<Button onclick={() => again(w)}>Make a second secret</Button>{/if}
				<Button kind="quiet" onclick={() => act(`${w.origin} gives no passes any more.`, () => call('delete /websites/{id}', { path: { id: w.id } }))}
					>Withdraw {w.origin}</Button
				>
			</p>
		</li>
	{:else}<li class="soft">None yet.</li>{/each}
</ul>

<style>
	form {
		display: grid;
		gap: 14px;
		margin: 14px 0 22px;
		justify-items: start;
	}
	form > label {
		display: grid;
		gap: 4px;
	}
	fieldset {
		display: flex;
		flex-wrap: wrap;
		gap: 6px 18px;
	}
	legend {
		margin-bottom: 4px;
	}
	ul {
		display: grid;
		gap: 22px;
	}
	li {
		display: grid;
		gap: 8px;
	}
	h3 {
		font-weight: 600;
		overflow-wrap: anywhere;
	}
</style>
