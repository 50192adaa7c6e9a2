<script lang="ts">
	import { counted } from '#core/text/list';
	import { PasskeyForm } from '$lib/ui/people/passkey.svelte';
	import { dayText, timeText } from '$lib/ui/parts/when';
	import { accountWords as account, newsWords as news, words } from '$lib/ui/parts/words';
	import SiteFrame from '$lib/ui/placing/SiteFrame.svelte';
	let { data, form } = $props();
	const said = $derived(form as { about: string; trouble?: string; done?: string; prepared?: { qr: string; secret: string; spare: string[] } } | null);
	const passkey = new PasskeyForm(() => data.passkeySite, 'make');
	/** A browser's own string, shortened to what people know it by. */
	const browser = (agent: string) => {
		const name = /Firefox|Edg|OPR|Chrome|Safari/.exec(agent)?.[0] ?? '';
		const on = /iPhone|iPad|Android|Windows|Mac OS X|Linux/.exec(agent)?.[0] ?? '';
		const called = { Edg: 'Edge', OPR: 'Opera' }[name] ?? name;
		return called && on ? account('onSystem', { browser: called, system: on }) : called || on || account('aProgram');
	};
</script>

{#snippet say(about: string)}
	{#if said?.about === about && said.trouble}<p class="trouble" role="alert">{said.trouble}</p>{/if}
	{#if said?.about === about && said.done}<p class="say" role="status">{said.done}</p>{/if}
{/snippet}

<svelte:head><title>{news('account')}, {data.site.name}</title></svelte:head>
<SiteFrame site={data.site} navigation={data.navigation} current="/me" me={data.me} title={news('account')} lead="{data.me?.name}, {data.me?.email}">
	<div class="head">
		<a href="/me">{data.me?.name}</a>
		<form method="POST" action="/sign-in?/out"><button class="btn">{account('signOut')}</button></form>
	</div>
	{#if data.memberships.length}
		<h2>{account('memberships')}</h2>
		<ul>
			{#each data.memberships as m, i (i)}<li>
					<bdi>{m.group}</bdi>
					{#if !m.current}· {account('notCurrent')}{/if}
					{#if m.until}· {account('untilDay', { day: dayText(m.until, data.site.zone, Date.now(), data.language) })}{/if}
				</li>{/each}
		</ul>
	{/if}
	<h2>{account('whereIn')}</h2>
	{@render say('sessions')}
	<ul class="lines">
		{#each data.sessions as session (session.id)}
			<li>
				<span class="what"
					>{browser(session.agent)}{session.here ? `, ${account('here')}` : ''}<small
						>{account('sinceLast', {
							since: dayText(session.since, data.site.zone, Date.now(), data.language),
							last: timeText(session.seenAt, data.site.zone, data.language)
						})}{session.address ? `, ${account('fromAddress', { address: session.address })}` : ''}</small
					></span
				>
				{#if !session.here}<form method="POST" action="?/end">
						<input type="hidden" name="id" value={session.id} /><button class="quiet">{account('outThere')}</button>
					</form>{/if}
			</li>
		{/each}
	</ul>
	{#if data.sessions.length > 2}<form method="POST" action="?/end" class="mt-2">
			<input type="hidden" name="id" value="others" /><button class="btn">{account('outElsewhere')}</button>
		</form>{/if}

	<h2>{words('password')}</h2>
	{@render say('password')}
	<details>
		<summary>{account('changePassword')}</summary>
		<form class="fields" method="POST" action="?/password">
			<label>{account('passwordSoFar')} <input class="field" type="password" name="current" required autocomplete="current-password" /></label>
			<label
				>{account('newPassword', { count: data.passwordLength.min })}
				<input class="field" type="password" name="password" required minlength={data.passwordLength.min} autocomplete="new-password" /></label
			>
			<button class="btn">{account('changeIt')}</button>
		</form>
		<p class="soft">{account('haveNone')} <a href="/sign-in/forgotten">{account('chooseByMail')}</a>.</p>
	</details>

	{#if passkey.usable || data.passkeys.length}
		<h2>{account('passkeys')}</h2>
		{#if passkey.trouble}<p class="trouble" role="alert">{passkey.trouble}</p>{:else}{@render say('passkeys')}{/if}
		<p class="soft">{account('passkeyWords')}</p>
		{#if data.passkeys.length}
			<ul class="lines">
				{#each data.passkeys as { id, name, since } (id)}
					<li>
						<span class="what"
							><bdi>{name}</bdi><small>{account('passkeySince', { day: dayText(since, data.site.zone, Date.now(), data.language) })}</small></span
						>
						<form method="POST" action="?/removePasskey">
							<input type="hidden" name="id" value={id} /><button class="quiet" aria-label="{account('removePasskey')}: {name}"
								>{account('removePasskey')}</button
							>
						</form>
					</li>
				{/each}
			</ul>
		{/if}
		{#if passkey.usable}
			<form class="fields" method="POST" action="?/addPasskey" bind:this={passkey.form} onsubmit={passkey.press}>
				<label>{account('passkeyName')} <input class="field" name="name" maxlength="60" autocomplete="off" /></label>
				<input type="hidden" name="response" value={passkey.response} />
				<button class="btn">{account('addPasskey')}</button>
			</form>
		{/if}
	{/if}

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

	<h2>{account('record')}</h2>
	<p class="soft">{account('recordWords')}</p>
	<p><a class="btn" href="/me/record.json" download>{account('takeAway')}</a></p>
	{#if !data.me?.staff}
		{@render say('erase')}
		<details>
			<summary>{account('haveErased')}</summary>
			<form class="fields" method="POST" action="?/erase">
				<p class="wide soft">
					{account('eraseWords')}
				</p>
				<label>{account('passwordIfAny')} <input class="field" type="password" name="current" autocomplete="current-password" /></label>
				<p class="wide checks"><label><input type="checkbox" name="sure" required /> {account('sure')}</label></p>
				<button class="btn">{account('erase')}</button>
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
