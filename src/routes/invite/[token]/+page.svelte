<script lang="ts">
	import { accountWords as account } from '$lib/ui/parts/words';
	import Archway from '$lib/ui/placing/Archway.svelte';
	let { data, form } = $props();
</script>

<svelte:head><title>{account('invitation')}, {data.site.name}</title><meta name="robots" content="noindex" /></svelte:head>
<Archway heading={data.role === 'member' ? account('yourSignIn', { site: data.site.name }) : `Look after the documents of ${data.site.name}`} door="open">
	{#if data.role === 'member'}
		<p>{account('inviteWords', { email: data.email })}</p>
	{:else}
		<p>
			You are invited as {data.role === 'owner' ? 'an owner' : 'an editor'}, under the address <b>{data.email}</b>.{data.known
				? ' You have an account here as a member; it becomes a staff account, with the password you choose now.'
				: ''}
		</p>
	{/if}
	{#if form?.trouble}<p class="trouble" role="alert">{form.trouble}</p>{/if}
	<form method="POST">
		{#if data.role === 'member' && data.known}<input type="hidden" name="name" value={data.name} />
		{:else}<label>{account('yourName')} <input class="field" name="name" value={data.name} required maxlength="120" autocomplete="name" /></label>{/if}
		<label
			>{account('aPassword', { count: data.passwordLength.min })}
			<input class="field" type="password" name="password" required minlength={data.passwordLength.min} autocomplete="new-password" /></label
		>
		<button class="btn main">{account('begin')}</button>
	</form>
</Archway>
