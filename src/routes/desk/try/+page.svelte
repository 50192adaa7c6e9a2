<!-- Trying a door: the real page in a frame as somebody else would get it, and why. Links pressed in it are tried likewise. -->
<script lang="ts">
	import { Button, Input, Moment, Select } from '$lib/ui/parts/controls';
	import { goto } from '$app/navigation';
	import { triedWords } from '$lib/ui/access/tried';
	let { data } = $props();

	const zone = $derived(data.site.zone);
	const kind = $derived(data.as.startsWith('member:') ? 'member:' : data.as);
	let narrow = $state(false);
	const source = $derived(
		`${data.path}${data.path.includes('?') ? '&' : '?'}${new URLSearchParams({ try: data.as, ...(data.at ? { at: data.at } : {}) }).toString()}`
	);
	function go(change: Record<string, string>) {
		const params = new URLSearchParams({ path: data.path, as: data.as, ...(data.at ? { at: data.at } : {}), ...change });
		if (!params.get('at')) params.delete('at');
		void goto(`/desk/try?${params}`, { keepFocus: true, noScroll: true });
	}
	/** Whatever is pressed in the frame is tried for the same person, instead of being opened as staff. */
	function hold(frame: HTMLIFrameElement) {
		const inner = frame.contentDocument;
		inner?.addEventListener(
			'click',
			(event) => {
				const link = (event.target as Element | null)?.closest?.('a[href]');
				if (!link) return;
				event.preventDefault();
				event.stopPropagation();
				const to = new URL((link as HTMLAnchorElement).href, location.origin);
				if (to.origin === location.origin) go({ path: to.pathname });
			},
			true
		);
		inner?.addEventListener('submit', (event) => event.preventDefault(), true);
	}
	function held(frame: HTMLIFrameElement) {
		// an attribute would be a script within the page, which the policy forbids; the frame may be there before us
		const now = () => hold(frame);
		frame.addEventListener('load', now);
		if (frame.contentDocument?.readyState === 'complete') now();
		return () => frame.removeEventListener('load', now);
	}
	const actionWords = { see: 'See', read: 'Read', save: 'Save', print: 'Print' } as const;
</script>

<svelte:head><title>Try the door, {data.site.name}</title></svelte:head>
<section>
	<div class="controls">
		<h1>Try the door</h1>
		<label
			>Of
			<Input
				class="path"
				list="paths"
				value={data.path}
				onchange={(e) => go({ path: e.currentTarget.value, ...(kind.startsWith('key:') ? { as: 'visitor' } : {}) })}
			/></label
		>
		<datalist id="paths"
			>{#each data.pages as page (page.path)}<option value={page.path}>{page.title}</option>{/each}</datalist
		>
		<label
			>As
			<Select value={kind} onchange={(e) => go({ as: e.currentTarget.value })}>
				<option value="visitor">a visitor</option>
				<option value="member:">a member, by e-mail address</option>
				{#each data.groups as group (group.slug)}<option value="group:{group.slug}">a member of {group.name}</option>{/each}
				{#each data.keys as key (key.id)}<option value="key:{key.id}">whoever holds the key “{key.label}”</option>{/each}
			</Select></label
		>
		{#if kind === 'member:'}<label
				>E-mail address <Input type="email" value={data.as.slice(7)} onchange={(e) => go({ as: `member:${e.currentTarget.value.trim()}` })} /></label
			>{/if}
		<div class="moment-under">
			When, in {zone.replace(/^.*\//, '').replaceAll('_', ' ')} time
			<Moment label="When" value={data.at} {zone} none="now" usual="12:00" change={(at) => go({ at: at ?? '' })} />
		</div>
		<div class="widths" role="group" aria-label="Width">
			<Button kind="pill" class={{ on: !narrow }} aria-pressed={!narrow} onclick={() => (narrow = false)}>Wide</Button>
			<Button kind="pill" class={{ on: narrow }} aria-pressed={narrow} onclick={() => (narrow = true)}>Phone</Button>
		</div>
	</div>
	<div class="why">
		{#if data.trouble}<p class="trouble" role="alert">{data.trouble}</p>
		{:else if data.tried}
			<p>
				<b>{data.name}</b>{#if data.slug}
					<a href="/desk/documents/{data.slug}#door">its door</a>{/if}
			</p>
			{#each Object.entries(data.tried) as [action, answer] (action)}
				{#if action === 'read' || data.tried.read?.allowed}<p>
						<b class:no={!answer.allowed}>{actionWords[action as 'read']}: {answer.allowed ? 'yes' : 'no'}.</b>
						{triedWords(answer, zone)}
					</p>{/if}
			{/each}
		{:else if kind === 'member:' && data.as.length < 9}<p class="soft">Give the e-mail address of a member.</p>
		{:else}<p class="soft">There is no page and no document of its own at that address; below is what they would see there.</p>{/if}
	</div>
	{#if !data.trouble && data.as !== 'member:'}
		<div class="stage" class:narrow>
			{#key source}<iframe title="What they would see" src={source} {@attach held}></iframe>{/key}
		</div>
	{/if}
</section>

<style>
	section {
		display: flex;
		flex-direction: column;
		height: calc(100dvh - var(--lintel));
	}
	.controls {
		display: flex;
		flex-wrap: wrap;
		align-items: end;
		gap: 10px 14px;
		padding: 12px 18px;
		background: var(--sheet);
		border-bottom: 1px solid var(--line);
	}
	h1 {
		font-size: 19px;
		line-height: 36px;
	}
	label,
	.moment-under {
		display: grid;
		gap: 2px;
		font-size: 12.5px;
		color: var(--ink-soft);
	}
	label :global(.path) {
		width: 230px;
	}
	.widths {
		display: flex;
		gap: 6px;
		margin-left: auto;
		padding-bottom: 3px;
	}
	.why {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 22px;
		padding: 8px 18px;
		font-size: 13px;
		border-bottom: 1px solid var(--line);
	}
	.why p b {
		color: var(--verdigris);
	}
	.why p:first-child b {
		color: var(--ink);
		font-family: var(--title);
		margin-right: 6px;
	}
	.why p b.no {
		color: var(--brick);
	}
	.stage {
		flex: 1;
		min-height: 0;
		background: var(--sunk);
		padding: 14px 18px 0;
	}
	iframe {
		display: block;
		width: 100%;
		height: 100%;
		border: 1px solid var(--line);
		border-bottom: 0;
		background: #fff;
	}
	.narrow iframe {
		width: 390px;
		margin: 0 auto;
	}
</style>
