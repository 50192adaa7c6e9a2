<!-- What this site keeps of those who read: in the words of the settings in force. -->
<script lang="ts">
	import { words } from '$lib/ui/parts/words';
	import SiteFrame from '$lib/ui/placing/SiteFrame.svelte';
	let { data } = $props();
	const told = { cookie: 'privCookie', day: 'privDay', nothing: 'privNothing' } as const;
	const contact = $derived(data.site.foot?.contact);
</script>

<svelte:head><title>{words('privacy')}, {data.site.name}</title></svelte:head>
<SiteFrame site={data.site} me={data.me} title={words('privacy')} narrow>
	<div class="prose-page">
		<h2>{words('privKept')}</h2>
		<ul>
			<li>{words('privOpened')}</li>
			<li>{words('privPages')}</li>
			<li>{words('privMember')}</li>
			<li>{words('privKey')}</li>
			{#if data.receipts}<li>{words('privReceipt')}</li>{/if}
			{#if data.passes}<li>{words('privPass')}</li>{/if}
		</ul>
		<h2>{words('privNobody')}</h2>
		<p>{words(told[data.nameless])}</p>
		<h2>{words('privHowLong')}</h2>
		<p>{data.months === null ? words('privForever') : words('privMonths', { count: data.months })}</p>
		<h2>{words('privSignal')}</h2>
		<p>{words('privGpc')}</p>
		{#if data.asks}<p class="say" role="status">{words('privGpcOn')}</p>{/if}
		<p>{words('privOthers')}</p>
		{#if contact}<p>{words('contact')}: <a href={contact.includes('@') ? `mailto:${contact}` : contact}>{contact.replace(/^https:\/\//, '')}</a></p>{/if}
	</div>
</SiteFrame>
