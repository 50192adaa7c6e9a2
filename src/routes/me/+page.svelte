<script lang="ts">
	import { counted } from '#core/access/reach';
	import { dayText, timeText } from '$lib/ui/parts/when';
	import SiteFrame from '$lib/ui/placing/SiteFrame.svelte';
	import DocumentList from '$lib/ui/documents/DocumentList.svelte';
	let { data, form } = $props();
	const said = $derived(form as { about: string; trouble?: string; done?: string; prepared?: { qr: string; secret: string; spare: string[] } } | null);
	/** A browser's own string, shortened to what people know it by. */
	const browser = (agent: string) => {
		const name = /Firefox|Edg|OPR|Chrome|Safari/.exec(agent)?.[0] ?? '';
		const on = /iPhone|iPad|Android|Windows|Mac OS X|Linux/.exec(agent)?.[0] ?? '';
		return [{ Edg: 'Edge', OPR: 'Opera' }[name] ?? name, on && `on ${on}`].filter(Boolean).join(' ') || 'A program';
	};
</script>

{#snippet say(about: string)}
	{#if said?.about === about && said.trouble}<p class="trouble" role="alert">{said.trouble}</p>{/if}
	{#if said?.about === about && said.done}<p class="say" role="status">{said.done}</p>{/if}
{/snippet}

<svelte:head><title>{data.me?.name}, {data.site.name}</title></svelte:head>
<SiteFrame site={data.site} navigation={data.navigation} current="/me" me={data.me}>
	<div class="head">
		<h1>{data.me?.name}</h1>
		<form method="POST" action="/sign-in?/out"><button class="btn">Sign out</button></form>
	</div>
	<p class="soft">{data.me?.email}</p>
	{#if data.memberships.length}
		<h2>Your memberships</h2>
		<ul>
			{#each data.memberships as m, i (i)}<li>
					{m.group}{m.current ? '' : ', not current'}{m.until ? `, until ${dayText(`${m.until}T00:00Z`, 'UTC')}` : ''}
				</li>{/each}
		</ul>
	{/if}
	<h2>What you may read</h2>
	{#if data.documents.length}<DocumentList documents={data.documents} />{:else}<p class="soft">Nothing at the moment.</p>{/if}

	<h2>Where you are signed in</h2>
	{@render say('sessions')}
	<ul class="lines">
		{#each data.sessions as session (session.id)}
			<li>
				<span class="what"
					>{browser(session.agent)}{session.here ? ', here' : ''}<small
						>since {dayText(session.since, data.site.zone)}, last {timeText(session.seenAt, data.site.zone)}{session.address
							? `, from ${session.address}`
							: ''}</small
					></span
				>
				{#if !session.here}<form method="POST" action="?/end">
						<input type="hidden" name="id" value={session.id} /><button class="quiet">Sign out there</button>
					</form>{/if}
			</li>
		{/each}
	</ul>
	{#if data.sessions.length > 2}<form method="POST" action="?/end" class="mt-2">
			<input type="hidden" name="id" value="others" /><button class="btn">Sign out everywhere else</button>
		</form>{/if}

	<h2>Password</h2>
	{@render say('password')}
	<details>
		<summary>Change the password</summary>
		<form class="fields" method="POST" action="?/password">
			<label>Password so far <input class="field" type="password" name="current" required autocomplete="current-password" /></label>
			<label
				>New password <input class="field" type="password" name="password" required minlength={data.passwordLength.min} autocomplete="new-password" /></label
			>
			<button class="btn">Change it</button>
		</form>
		<p class="soft">Came in by a mailed link and have none? <a href="/sign-in/forgotten">Choose one by mail</a>.</p>
	</details>

	{#if data.me?.staff}
		<h2>A code besides the password</h2>
		{@render say('factor')}
		{#if said?.prepared}
			<p>Scan this with a code program (RFC 6238), or type the secret into it:</p>
			<div class="factor">
				<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn on our own server from the secret -->
				<div class="qr" role="img" aria-label="The secret as a QR code">{@html said.prepared.qr}</div>
				<div>
					<p><code>{said.prepared.secret}</code></p>
					<p class="soft">
						{counted(said.prepared.spare.length, 'spare code', 'spare codes')} for when it is not at hand; each works once. Keep them elsewhere:
					</p>
					<p><code>{said.prepared.spare.join('  ')}</code></p>
				</div>
			</div>
			<form class="fields" method="POST" action="?/confirm">
				<label>The six digits that it shows now <input class="field" name="code" inputmode="numeric" autocomplete="one-time-code" required /></label>
				<button class="btn main">Confirm</button>
			</form>
		{:else if data.secondFactor}
			<details>
				<summary>You are asked for a code. Do without it</summary>
				<form class="fields" method="POST" action="?/without">
					<label>Password <input class="field" type="password" name="current" required autocomplete="current-password" /></label>
					<button class="btn">Do without the code</button>
				</form>
			</details>
		{:else}
			<details>
				<summary>Ask for a code when I sign in</summary>
				<form class="fields" method="POST" action="?/prepare">
					<label>Password <input class="field" type="password" name="current" required autocomplete="current-password" /></label>
					<button class="btn">Go on</button>
				</form>
			</details>
		{/if}
	{/if}

	<h2>Your record</h2>
	<p class="soft">All that is kept of you here: your account, memberships, sign-ins and what you opened, read and saved.</p>
	<p><a class="btn" href="/me/record.json" download>Take it away</a></p>
	{#if !data.me?.staff}
		{@render say('erase')}
		<details>
			<summary>Have it erased</summary>
			<form class="fields" method="POST" action="?/erase">
				<p class="wide soft">
					Your account, memberships and name go at once, and with them what you may read here. What you opened stays counted, but nobody can tell any more that
					it was you.
				</p>
				<label>Password, if you have one <input class="field" type="password" name="current" autocomplete="current-password" /></label>
				<p class="wide checks"><label><input type="checkbox" name="sure" required /> I am sure; this cannot be undone</label></p>
				<button class="btn">Erase my record</button>
			</form>
		</details>
	{/if}
</SiteFrame>

<style>
	.head {
		display: flex;
		justify-content: space-between;
		gap: 12px;
		flex-wrap: wrap;
	}
	h2 {
		font-size: 19px;
		margin: 30px 0 6px;
	}
	.lines {
		background: var(--sheet);
	}
	summary {
		cursor: pointer;
		color: var(--verdigris);
		line-height: 28px;
	}
	.fields {
		max-width: 520px;
		align-items: end;
		margin: 8px 0;
	}
	.fields .btn {
		justify-self: start;
	}
	.factor {
		display: flex;
		flex-wrap: wrap;
		gap: 16px;
		margin: 10px 0;
	}
	.factor > div:last-child {
		flex: 1;
		min-width: 220px;
	}
	.qr {
		width: 150px;
		height: 150px;
		background: #fff;
	}
	code {
		overflow-wrap: anywhere;
		white-space: pre-wrap;
	}
	@media (max-width: 600px) {
		.fields {
			grid-template-columns: 1fr;
		}
	}
</style>
