<!-- How the text is set: size, spacing, width and paper, by links. -->
<script lang="ts">
	import { page as address } from '$app/state';
	import type { ChosenText, TextSetting } from '#core/reading/text-settings';
	import { words } from '$lib/ui/parts/words';
	let { settings }: { settings: ChosenText } = $props();
	// it stands twice: beside the text, and in a panel where there is no room beside it
	const id = $props.id();
	const setting = {
		size: { said: 'textSize', values: { small: 'small', normal: 'normal', large: 'large', largest: 'largest' } },
		spacing: { said: 'textSpacing', values: { normal: 'normal', wide: 'wide' } },
		width: { said: 'textWidth', values: { narrow: 'narrow', normal: 'normal', wide: 'wide' } },
		paper: { said: 'textPaper', values: { day: 'paperDay', straw: 'paperStraw', night: 'paperNight' } }
	} as const;
	function chosen(name: TextSetting, value: string): string {
		const params = new URLSearchParams(address.url.searchParams);
		params.set(name, value);
		return `?${params}`;
	}
</script>

{#each Object.entries(setting) as [name, { said: label, values }] (name)}
	<h2 id="{id}-{name}">{words(label)}</h2>
	<div class="choices" role="group" aria-labelledby="{id}-{name}">
		{#each Object.entries(values) as [value, word] (value)}<a
				href={chosen(name as TextSetting, value)}
				class={name === 'paper' ? `paper-${value}` : ''}
				rel="nofollow"
				data-sveltekit-noscroll
				aria-current={settings[name as TextSetting] === value ? 'true' : undefined}>{words(word)}</a
			>{/each}
	</div>
{/each}

<style>
	h2 {
		margin: 14px 0 6px;
		font: 600 15px var(--body);
		color: var(--paper-soft);
	}
	.choices {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
	}
	.choices a {
		min-height: 44px;
		min-width: 52px;
		display: grid;
		place-items: center;
		padding: 4px 12px;
		border: 1px solid var(--edge);
		border-radius: var(--corner);
		color: inherit;
		text-decoration: none;
	}
	.choices a[aria-current] {
		border: 2px solid var(--brass-bright);
		font-weight: 600;
	}
	.choices .paper-day {
		background: #fffdf8;
		color: #1b2a29;
	}
	.choices .paper-straw {
		background: #f6ead0;
		color: #2b2113;
	}
	.choices .paper-night {
		background: #141c1b;
		color: #ece7db;
	}
</style>
