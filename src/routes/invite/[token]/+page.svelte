<script lang="ts">
	import { accountWords as account } from '$lib/ui/parts/words';
	let { data, form } = $props();
</script>

<svelte:head><title>{account('invitation')}, {data.site.name}</title><meta name="robots" content="noindex" /></svelte:head>
<main>
	{#if data.role === 'member'}
		<h1>{account('yourSignIn', { site: data.site.name })}</h1>
		<p>{account('inviteWords', { email: data.email })}</p>
	{:else}
		<h1>Look after the documents of {data.site.name}</h1>
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
</main>

<style>
	main {
		max-width: 420px;
		margin: 9vh auto;
		padding: 0 16px;
		font-size: 16px;
	}
	p {
		margin: 10px 0;
	}
	form,
	label {
		display: grid;
		gap: 12px;
	}
	label {
		gap: 3px;
	}
	.field {
		font-size: 16px;
		height: 42px;
	}
</style>
