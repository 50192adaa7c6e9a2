<!-- A day, with a time where one is wanted, in the site's zone: typed as people write it ("7/12 9:00"), or chosen in a calendar. -->
<script lang="ts">
	import { page } from '$app/state';
	import { dayOf } from '#core/access/hours';
	import { boundOf, dayHabitOf, readMoment, readTime, shownBound } from '#core/access/wall-time';
	import Button from './Button.svelte';
	import Input from './Input.svelte';

	let {
		value,
		label,
		zone,
		none,
		usual = null,
		near = null,
		required = false,
		dayOnly = false,
		least,
		most,
		change
	}: {
		/** A day (YYYY-MM-DD, the whole of it), an instant (RFC 3339), or nothing. */
		value: string | null;
		/** What it is the day and the time of, for who cannot see what stands before it. */
		label: string;
		zone: string;
		/** What it means that none is set: on the button that takes it out, and in the empty field. */
		none: string;
		/** The time (HH:MM) where only a day is given; without one the whole day is meant. */
		usual?: string | null;
		/** A bound beside it, at whose month the calendar opens. */
		near?: string | null;
		required?: boolean;
		/** No time is asked for: `value` is a day and stays one. */
		dayOnly?: boolean;
		/** The first and the last day that may be chosen. */
		least?: string;
		most?: string;
		change: (value: string | null) => void;
	} = $props();

	const id = $props.id();
	const language = $derived((page.data as { site?: { language?: string | null } }).site?.language ?? 'en');
	const spoken = $derived(language === 'en' ? 'en-GB' : language);
	const habit = $derived(dayHabitOf(spoken));
	const shown = $derived(value ? shownBound(value, zone) : null);
	/** Calendars know days of their own zone alone: noon of the day there. */
	const noon = (day: string) => new Date(`${day}T12:00`);
	const dayWords = $derived(
		shown
			? new Intl.DateTimeFormat(spoken, { ...(dayOnly ? {} : { weekday: 'short' }), day: 'numeric', month: 'short', year: 'numeric' }).format(noon(shown.day))
			: ''
	);
	/** What is typed and not taken yet, or was not understood. */
	let typedDay = $state<string | null>(null);
	let typedTime = $state<string | null>(null);
	let open = $state(false);
	/** Fetched when it is wanted; where it cannot be, the day is typed. */
	let Calendar = $state<typeof import('./Calendar.svelte').default>();
	const noCalendar = 'The calendar did not come. Write the day, like 7/12.';
	$effect(() => {
		if (!open) return;
		import('./Calendar.svelte').then(
			(part) => {
				Calendar = part.default;
				if (trouble === noCalendar) trouble = '';
			},
			// what is typed is as good as before: no form is kept from going off
			() => (trouble ||= noCalendar)
		);
	});
	let trouble = $state('');
	let root = $state<HTMLElement>();
	let field = $state<HTMLInputElement>();

	/** Says what is wrong; a form around it does not go off meanwhile. */
	function say(words: string) {
		trouble = words;
		field?.setCustomValidity(words);
	}
	/** Gone with the next letter, so that nothing moves under the press that follows. */
	const forgive = () => {
		if (trouble) say('');
	};
	function taken() {
		say('');
		[typedDay, typedTime] = [null, null];
	}
	/** A day in words, without its weekday. */
	const named = (day: string) => new Intl.DateTimeFormat(spoken, { day: 'numeric', month: 'long', year: 'numeric' }).format(noon(day));
	function set(day: string, time: string | null) {
		if (least && day < least) return say(`It is ${named(least)} at the earliest.`);
		if (most && day > most) return say(`It is ${named(most)} at the latest.`);
		taken();
		const bound = dayOnly ? day : boundOf(day, time ?? usual, zone);
		if (bound !== value) change(bound);
	}
	function clear() {
		taken();
		open = false;
		if (value !== null) change(null);
	}
	function typeDay(text: string) {
		if (!text.trim()) return clear();
		if (text === dayWords) return taken();
		const read = readMoment(text, dayOf(Date.now(), zone), habit);
		if (!read || (dayOnly && read.time))
			return say(
				`“${text}” is not a day. Write it like ${habit.dayFirst ? '7/12' : '12/7'} or 7 December${dayOnly ? '' : ', with the time behind it if you like'}.`
			);
		open = false;
		set(read.day, read.time ?? shown?.time ?? null);
	}
	/** A day alone counts as soon as it can be read, so that a form knows of it before the field is left; the text stays as it is typed. */
	function whileTyping(text: string) {
		forgive();
		if (!dayOnly) return;
		const read = readMoment(text, dayOf(Date.now(), zone), habit);
		const day = read && !read.time && (!least || read.day >= least) && (!most || read.day <= most) ? read.day : null;
		if (day ? day !== value : !text.trim() && value !== null) change(day);
	}
	function typeTime(text: string) {
		if (!shown) return;
		const time = text.trim() ? readTime(text) : null;
		if (text.trim() && !time) return say(`“${text}” is not a time. Write it like 9:00 or 18:30.`);
		set(shown.day, time);
	}
	/** Flowbite calls the days cells of a table that has no rows: to whoever hears them they are buttons, the chosen one pressed. */
	function mended(node: HTMLElement) {
		const mend = () => {
			for (const part of node.querySelectorAll('[role=grid], [role=columnheader]')) part.removeAttribute('role');
			for (const day of node.querySelectorAll('[role=gridcell]')) {
				day.setAttribute('aria-pressed', day.getAttribute('aria-selected') ?? 'false');
				for (const name of ['role', 'aria-selected']) day.removeAttribute(name);
			}
		};
		mend();
		// at the right edge it stands under the end of its field
		if (node.getBoundingClientRect().right > document.documentElement.clientWidth) [node.style.left, node.style.right] = ['auto', '0'];
		node.scrollIntoView({ block: 'nearest' });
		const observer = new MutationObserver(mend);
		observer.observe(node, { subtree: true, childList: true });
		return () => observer.disconnect();
	}
	const leave = (event: Event) => {
		if (open && root && !root.contains(event.target as Node)) open = false;
	};
	function choose(chosen: Date | undefined) {
		if (!chosen) return;
		open = false;
		field?.focus();
		set([chosen.getFullYear(), chosen.getMonth() + 1, chosen.getDate()].map((n) => String(n).padStart(2, '0')).join('-'), shown?.time ?? null);
	}
</script>

<svelte:window
	onpointerdown={leave}
	onfocusin={leave}
	onkeydowncapture={(e) => {
		if (e.key !== 'Escape' || !open) return;
		e.stopPropagation();
		open = false;
		field?.focus();
	}}
/>

<span class="moment" class:day={dayOnly} bind:this={root} role={dayOnly ? undefined : 'group'} aria-label={dayOnly ? undefined : label}>
	<Input
		bind:elementRef={field}
		class="moment-day"
		aria-label={dayOnly ? label : `${label}: day`}
		aria-describedby={trouble ? `${id}-trouble` : undefined}
		aria-invalid={trouble ? true : undefined}
		placeholder={none}
		autocomplete="off"
		{required}
		bind:value={() => typedDay ?? dayWords, (text) => (typedDay = text)}
		oninput={(e) => whileTyping(e.currentTarget.value)}
		onchange={(e) => typeDay(e.currentTarget.value)}
		onkeydown={(e) => {
			if (e.key === 'ArrowDown') {
				e.preventDefault();
				open = true;
			}
		}}
	/>
	<Button class="moment-pick" aria-label="{label}: choose the day in a calendar" aria-expanded={open} onclick={() => (open = !open)}>
		<svg viewBox="0 0 16 16" width="16" height="16" aria-hidden="true">
			<path d="M2.5 4h11v9.5h-11z M2.5 7.2h11 M5.5 2v3.4 M10.5 2v3.4" fill="none" stroke="currentColor" stroke-width="1.4" />
		</svg>
	</Button>
	{#if !dayOnly}<Input
			class="moment-time"
			aria-label="{label}: time"
			placeholder={usual ?? 'all day'}
			autocomplete="off"
			disabled={!shown}
			bind:value={() => typedTime ?? shown?.time ?? '', (text) => (typedTime = text)}
			oninput={forgive}
			onchange={(e) => typeTime(e.currentTarget.value)}
		/>{/if}
	{#if value && !required && none}<Button kind="quiet" onclick={clear}>{none}</Button>{/if}
	{#if trouble}<small class="trouble" id="{id}-trouble" role="alert">{trouble}</small>{/if}
	{#if open && Calendar}
		<span class="calendar" {@attach mended}>
			<Calendar
				value={shown ? noon(shown.day) : undefined}
				opensAt={noon(near ? shownBound(near, zone).day : dayOf(Date.now(), zone))}
				language={spoken}
				least={least ? noon(least) : null}
				most={most ? noon(most) : null}
				{choose}
			/>
		</span>
	{/if}
</span>

<style>
	.moment {
		position: relative;
		display: inline-flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 4px;
	}
	/* a day alone stays in one line and takes what room there is, up to a long month */
	.moment.day {
		display: inline-grid;
		grid-template-columns: minmax(0, 130px) max-content;
		justify-content: start;
	}
	.moment.day :global(.moment-day) {
		width: 100%;
		min-width: 0;
	}
	.day .trouble {
		grid-column: 1 / -1;
		width: 0;
		min-width: 100%;
	}
	.moment :global(.moment-day) {
		width: 150px;
		border-right: 0;
		border-top-right-radius: 0;
		border-bottom-right-radius: 0;
	}
	.moment :global(.moment-pick) {
		margin-left: -4px;
		padding: 0 8px;
		border-top-left-radius: 0;
		border-bottom-left-radius: 0;
		align-self: stretch;
	}
	.moment :global(.moment-time) {
		width: 72px;
	}
	.trouble {
		flex-basis: 100%;
		max-width: 300px;
	}
	.calendar {
		position: absolute;
		z-index: 30;
		top: calc(100% + 4px);
		left: 0;
	}
	/* Flowbite's calendar in our colours: an arch marks the day */
	.calendar :global([role='dialog']) {
		padding: 10px;
		border: 1px solid var(--edge);
		border-radius: var(--corner);
		background: var(--sheet);
		color: var(--ink);
	}
	.calendar :global(button) {
		background: none;
		border: 0;
		color: var(--ink);
	}
	.calendar :global(button:hover) {
		background: var(--brass-wash);
	}
	.calendar :global([aria-pressed='true']) {
		background: var(--brass-bright);
		color: #1d1a12;
		border-radius: 12px 12px 0 0;
	}
	.calendar :global([class~='grid'] > div) {
		color: var(--ink-soft);
		font-weight: 400;
	}
</style>
