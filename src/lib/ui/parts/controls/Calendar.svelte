<!-- A month to choose a day from. Apart, because it is fetched when somebody opens it. -->
<script lang="ts">
	import { Datepicker } from 'flowbite-svelte';

	let {
		value,
		opensAt,
		language,
		least,
		most,
		choose
	}: {
		value: Date | undefined;
		/** A day of the month that it opens at. */
		opensAt: Date;
		language: string;
		least: Date | null;
		most: Date | null;
		choose: (day: Date | undefined) => void;
	} = $props();
</script>

<Datepicker
	inline
	{value}
	defaultDate={opensAt}
	locale={language}
	firstDayOfWeek={language === 'en-US' ? 0 : 1}
	monthColor="alternative"
	availableFrom={least}
	availableTo={most}
	onselect={(chosen) => choose(chosen instanceof Date ? chosen : undefined)}
/>
