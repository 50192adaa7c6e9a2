<!-- Openings and saves day by day, by Chart.js in the desk's own colours; the table beside it says the same in numbers. -->
<script lang="ts">
	import { BarController, BarElement, CategoryScale, Chart, LinearScale, Tooltip } from 'chart.js';
	import { onMount } from 'svelte';
	import type { DayFigures } from '#core/readership/counting';
	let { days }: { days: readonly DayFigures[] } = $props();
	let canvas = $state<HTMLCanvasElement>();
	let chart: Chart | undefined;

	const label = (day: string) => new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' }).format(Date.parse(`${day}T00:00Z`));

	/** A token's colour as it stands now: canvas needs the computed one. */
	function colour(token: string): string {
		const probe = document.createElement('span');
		probe.style.color = `var(${token})`;
		document.body.append(probe);
		const value = getComputedStyle(probe).color;
		probe.remove();
		return value;
	}

	function paint() {
		if (!canvas) return;
		Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);
		chart?.destroy();
		const [soft, line] = [colour('--ink-soft'), colour('--line')];
		const font = { family: getComputedStyle(document.documentElement).fontFamily, size: 12 };
		chart = new Chart(canvas, {
			type: 'bar',
			data: {
				labels: days.map((d) => label(d.day)),
				datasets: [
					{ label: 'Openings', data: days.map((d) => d.openings), backgroundColor: colour('--verdigris'), stack: 'all' },
					{ label: 'Copies saved', data: days.map((d) => d.saves), backgroundColor: colour('--brass-bright'), stack: 'all' }
				]
			},
			options: {
				responsive: true,
				maintainAspectRatio: false,
				animation: false,
				scales: {
					x: { stacked: true, grid: { display: false }, border: { color: soft }, ticks: { color: soft, font, maxRotation: 0, autoSkipPadding: 14 } },
					y: {
						stacked: true,
						beginAtZero: true,
						grid: { color: line },
						border: { display: false },
						ticks: { color: soft, font, precision: 0, maxTicksLimit: 5 }
					}
				},
				plugins: { tooltip: { mode: 'index', intersect: false } }
			}
		});
	}
	onMount(() => {
		const themes = new MutationObserver(paint);
		themes.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] });
		const system = matchMedia('(prefers-color-scheme: dark)');
		system.addEventListener('change', paint);
		return () => {
			themes.disconnect();
			system.removeEventListener('change', paint);
			chart?.destroy();
		};
	});
	$effect(() => {
		void days;
		paint();
	});
</script>

<div class="h-[220px]" role="img" aria-label="Openings and copies saved, day by day"><canvas bind:this={canvas} aria-hidden="true"></canvas></div>
<p class="legend"><i style="background:var(--verdigris)"></i>Openings <i style="background:var(--brass-bright)"></i>Copies saved</p>

<style>
	.legend {
		display: flex;
		align-items: center;
		gap: 6px;
		font-size: 12.5px;
		color: var(--ink-soft);
		margin-top: 6px;
	}
	.legend i {
		width: 11px;
		height: 11px;
	}
	.legend i:not(:first-child) {
		margin-left: 12px;
	}
</style>
