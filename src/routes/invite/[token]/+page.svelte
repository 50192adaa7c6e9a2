<script lang="ts">
	let { data, form } = $props();
</script>

<svelte:head><title>Invitation, {data.site.name}</title><meta name="robots" content="noindex" /></svelte:head>
<main>
	{#if data.role === 'member'}
		<h1>Your sign-in to {data.site.name}</h1>
		<p>Under the address <b>{data.email}</b>. Choose a password; with it you read what is kept for you.</p>
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
		{:else}<label>Your name <input class="field" name="name" value={data.name} required maxlength="120" autocomplete="name" /></label>{/if}
		<label
			>A password, at least {data.passwordLength.min} characters
			<input class="field" type="password" name="password" required minlength={data.passwordLength.min} autocomplete="new-password" /></label
		>
		<button class="btn main">Begin</button>
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
