<!-- The demo's mailbox: every mail that was sent, whoever it was to. -->
<script lang="ts">
	import { counted } from '#core/text/list';
	import { timeText } from '$lib/ui/parts/when';
	let { data } = $props();
	const parts = (text: string) => text.split(/(https?:\/\/[^\s<>"]+)/);
</script>

<svelte:head><title>Postbox, {data.site.name}</title><meta name="robots" content="noindex" /></svelte:head>
<main>
	<h1>Postbox</h1>
	<p class="soft">
		A stand-in that ships with the demo: mail of the site goes nowhere else. {data.mails.length
			? `${counted(data.mails.length, 'mail', 'mails')}, the newest first.`
			: 'No mail has been sent yet.'}
	</p>
	{#each data.mails as mail (mail.name)}
		<article class="panel">
			<p class="head"><b>{mail.subject}</b><span class="soft">to {mail.to}, {timeText(mail.at, data.site.zone)}</span></p>
			<p class="text">
				{#each parts(mail.text) as part, i (i)}{#if /^https?:/.test(part)}<!-- eslint-disable-next-line svelte/no-navigation-without-resolve --><a href={part}
							>{part}</a
						>{:else}{part}{/if}{/each}
			</p>
		</article>
	{/each}
</main>

<style>
	main {
		max-width: 760px;
		margin: 0 auto;
		padding: 24px 16px 60px;
	}
	article {
		margin-top: 14px;
		background: var(--sheet);
	}
	.head {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 12px;
		justify-content: space-between;
	}
	.text {
		margin-top: 8px;
		white-space: pre-line;
		overflow-wrap: anywhere;
	}
</style>
