<!-- The lintel: the mark, the rooms in the order of the work, find, the intake tray, and the person's menu. -->
<script lang="ts">
	import { Dropdown, DropdownItem } from 'flowbite-svelte';
	import { page } from '$app/state';
	import { tray } from '$lib/ui/intake/tray.svelte';
	import GreatFind from './GreatFind.svelte';
	import { setTheme, type Theme } from './theme';
	import { topicHere } from '$lib/ui/help/here';
	import { rooms } from './rooms';

	let {
		siteName,
		person,
		find = $bindable()
	}: { siteName: string; person: { name: string; email: string; owner: boolean }; find?: HTMLInputElement } = $props();

	const initials = $derived(
		person.name
			.split(/\s+/)
			.map((w) => w[0])
			.slice(0, 2)
			.join('')
	);
	const came = $derived(tray.entries.filter((e) => e.state === 'in').length);
	const refused = $derived(tray.entries.filter((e) => e.state === 'refused').length);
	const themes: [Theme, string][] = [
		['system', 'As the system'],
		['light', 'Light'],
		['dark', 'Dark']
	];
	let chosen = $state<string>(page.data.theme as string);
	let menu = $state(false);
	/** What the handbook has for the screen one is on. */
	const topic = $derived(topicHere(page.url.pathname));
</script>

<header class="lintel">
	<a class="mark" href="/" title="To the site">
		<svg width="22" height="24" viewBox="0 0 22 24" aria-hidden="true"><path d="M2 24V11a9 9 0 0 1 18 0v13h-4V11a5 5 0 0 0-10 0v13z" fill="#c9973b" /></svg>
		Ianua<small>{siteName}</small>
	</a>
	<nav aria-label="Rooms">
		{#each rooms as room (room.href)}
			<a href={room.href} aria-current={page.url.pathname.startsWith(room.href) ? 'page' : undefined}>{room.name}</a>
		{/each}
	</nav>
	<GreatFind isOwner={person.owner} bind:field={find} />
	{#if tray.entries.length}
		<button class="edge" onclick={() => (tray.open = !tray.open)} aria-expanded={tray.open}
			>Intake {came} of {tray.entries.length}{refused ? `, ${refused} refused` : ''}</button
		>
	{/if}
	<a class="edge try" href="/desk/try">Try the door</a>
	<a
		class="edge help"
		href={topic ? `/desk/help/${topic.slug}` : '/desk/help'}
		aria-label={topic ? `Handbook: ${topic.title}` : 'Handbook'}
		title={topic?.title ?? 'Handbook'}>?</a
	>
	<button class="me" id="me" aria-label="{person.name}: menu" aria-haspopup="menu">{initials}</button>
	<Dropdown bind:isOpen={menu} triggeredBy="#me" simple class="w-60 border border-[var(--edge)] p-0" placement="bottom-end">
		<li class="list-none border-b border-[var(--line)] px-4 py-2.5">
			<strong class="block font-serif">{person.name}</strong><span class="soft">{person.email}</span>
		</li>
		<li class="flex list-none gap-1 px-3 py-2" role="group" aria-label="Light or dark">
			{#each themes as [value, words] (value)}
				<button
					class="pill"
					class:on={chosen === value}
					aria-pressed={chosen === value}
					onclick={() => {
						chosen = value;
						setTheme(value);
					}}>{words === 'As the system' ? 'System' : words}</button
				>
			{/each}
		</li>
		<DropdownItem href="/desk/settings">Settings</DropdownItem>
		<DropdownItem href="/desk/help">Handbook</DropdownItem>
		<DropdownItem href="/">To the site</DropdownItem>
		<li class="list-none border-t border-[var(--line)]">
			<form method="POST" action="/sign-in?/out"><button class="w-full cursor-pointer px-4 py-2.5 text-left">Sign out</button></form>
		</li>
	</Dropdown>
</header>

<style>
	.lintel {
		height: var(--lintel);
		background: var(--verdigris-deep);
		color: var(--on-dark);
		display: flex;
		align-items: stretch;
		gap: 18px;
		padding: 0 18px;
		position: sticky;
		top: 0;
		z-index: 30;
	}
	.lintel > :global(*) {
		flex: none;
	}
	/* what is beside it stays whole */
	.lintel > :global(form.find) {
		flex: 0 1 270px;
		min-width: 130px;
	}
	.mark {
		display: flex;
		align-items: center;
		gap: 9px;
		font: 600 19px var(--title);
		color: inherit;
		text-decoration: none;
	}
	small {
		font: 400 12px/1.25 var(--body);
		opacity: 0.8;
		border-left: 1px solid #ffffff40;
		padding-left: 10px;
		margin-left: 2px;
		max-width: 132px;
	}
	nav {
		display: flex;
		align-items: flex-end;
		gap: 4px;
		margin-left: 6px;
	}
	nav a {
		color: inherit;
		text-decoration: none;
		padding: 0 13px;
		height: 38px;
		display: flex;
		align-items: center;
	}
	nav a[aria-current] {
		background: var(--ground);
		color: var(--ink);
		border-radius: 19px 19px 0 0;
		padding: 0 18px;
		font-weight: 600;
	}
	.edge {
		align-self: center;
		display: inline-flex;
		align-items: center;
		color: inherit;
		text-decoration: none;
		height: 32px;
		padding: 0 11px;
		border: 1px solid #ffffff66;
		border-radius: var(--corner);
		cursor: pointer;
	}
	.me {
		align-self: center;
		width: 30px;
		height: 30px;
		border-radius: 15px 15px 3px 3px;
		background: #c9973b;
		color: #22190a;
		font-weight: 600;
		font-size: 12px;
		cursor: pointer;
	}
	@media (max-width: 1200px) {
		small {
			display: none;
		}
		nav a {
			padding: 0 9px;
		}
	}
	@media (max-width: 1060px) {
		.lintel {
			height: auto;
			flex-wrap: wrap;
			gap: 8px 12px;
			padding: 8px 12px 0;
		}
		nav {
			order: 9;
			width: 100%;
			margin: 0;
			overflow-x: auto;
		}
	}
</style>
