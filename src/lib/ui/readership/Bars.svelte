<!-- Openings and saves by day, week or month, beside as long before, by Chart.js in the desk's own colours; the table says the same in numbers. -->
<script lang="ts">
	import { Button } from '$lib/ui/parts/controls';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { BarController, BarElement, CategoryScale, Chart, LinearScale, LineController, LineElement, PointElement, Tooltip, type Plugin } from 'chart.js';
	import { onMount } from 'svelte';
	import { stepOf, type Bar, type Step } from '#core/readership/period';
	import { colour, onTheme } from './paint';
	import TakeAway from './TakeAway.svelte';

	let {
		bars,
		by,
		report,
		length,
		marks = []
	}: {
		bars: readonly Bar[];
		by: Step;
		/** Its address below `/api/v1/readership/`. */
		report: string;
		/** Days that the report goes over. */
		length: number;
		/** What happened on a day, drawn over it. */
		marks?: readonly { readonly day: string; readonly words: string }[];
	} = $props();
	let canvas = $state<HTMLCanvasElement | null>(null);
	let asTable = $state(false);
	let chart: Chart | undefined;

	const words = { day: ['Day by day', 'Day'], week: ['Week by week', 'Week from'], month: ['Month by month', 'Month from'] } as const;
	const label = (day: string) =>
		new Intl.DateTimeFormat(
			'en-GB',
			by === 'month' ? { month: 'short', year: 'numeric', timeZone: 'UTC' } : { day: 'numeric', month: 'short', timeZone: 'UTC' }
		).format(Date.parse(`${day}T00:00Z`));
	const marked = $derived(
		marks
			.map((m) => ({ at: bars.findIndex((b, i) => stepOf(b.day, by) === stepOf(m.day, by) || (i === 0 && m.day <= b.day)), words: m.words }))
			.filter((m) => m.at >= 0)
	);

	function paint() {
		if (!canvas) return;
		Chart.register(BarController, BarElement, CategoryScale, LinearScale, LineController, LineElement, PointElement, Tooltip);
		chart?.destroy();
		const [soft, line, ink, brass] = [colour('--ink-soft'), colour('--line'), colour('--ink'), colour('--brass')];
		const family = getComputedStyle(document.body).fontFamily;
		const font = { family, size: 12 };
		const drawn: Plugin = {
			id: 'marks',
			afterDatasetsDraw({ ctx, chartArea, scales }) {
				let [lastX, row] = [-1000, 0];
				for (const mark of marked) {
					// a chart of bars has an x scale
					const x = scales.x!.getPixelForValue(mark.at);
					row = x - lastX < 120 ? row + 1 : 0;
					lastX = x;
					ctx.save();
					ctx.strokeStyle = ctx.fillStyle = brass;
					ctx.setLineDash([3, 3]);
					ctx.beginPath();
					ctx.moveTo(x, chartArea.top - 4);
					ctx.lineTo(x, chartArea.bottom);
					ctx.stroke();
					ctx.font = `600 12px ${family}`;
					const left = x + 5 + ctx.measureText(mark.words).width > chartArea.right;
					ctx.textAlign = left ? 'right' : 'left';
					ctx.fillText(mark.words, x + (left ? -5 : 5), chartArea.top + 6 + row * 15);
					ctx.restore();
				}
			}
		};
		const wide = Math.max(3, Math.min(14, 400 / bars.length));
		chart = new Chart(canvas, {
			data: {
				labels: bars.map((b) => label(b.day)),
				datasets: [
					{
						type: 'line',
						label: 'Before',
						data: bars.map((b) => b.before),
						showLine: false,
						pointStyle: 'line',
						pointRadius: wide,
						pointHoverRadius: wide,
						borderColor: ink,
						borderWidth: 1.5,
						pointBorderWidth: 1.5
					},
					{ type: 'bar', label: 'Openings', data: bars.map((b) => b.openings), backgroundColor: colour('--verdigris'), stack: 'all' },
					{ type: 'bar', label: 'Copies saved', data: bars.map((b) => b.saves), backgroundColor: colour('--brass-bright'), stack: 'all' }
				]
			},
			plugins: [drawn],
			options: {
				responsive: true,
				maintainAspectRatio: false,
				animation: false,
				layout: { padding: { top: marked.length ? 8 : 0 } },
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
		const end = onTheme(paint);
		return () => {
			end();
			chart?.destroy();
		};
	});
	$effect(() => {
		void [bars, marked, canvas];
		paint();
	});
	const beside = $derived(bars.some((b) => b.before > 0));
</script>

<section>
	<h2>
		{words[by][0]}
		<small>openings and copies saved{beside ? `, beside the ${length} days before` : ''}</small><span class="tools"
			><Button kind="quiet" aria-pressed={asTable} onclick={() => (asTable = !asTable)}>{asTable ? 'As a chart' : 'As a table'}</Button><TakeAway
				{report}
				table="days"
				canvas={() => (asTable ? null : canvas)}
			/></span
		>
	</h2>
	{#if asTable}
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<div class="scroll" tabindex="0" role="region" aria-label={words[by][0]}>
			<Table class="rows">
				<TableHead
					><TableHeadCell>{words[by][1]}</TableHeadCell><TableHeadCell class="n">Openings</TableHeadCell><TableHeadCell class="n">Copies saved</TableHeadCell
					><TableHeadCell class="n">Both, before</TableHeadCell></TableHead
				><TableBody
					>{#each [...bars].reverse() as b (b.day)}<TableBodyRow
							><TableBodyCell>{b.day}</TableBodyCell><TableBodyCell class="n">{b.openings}</TableBodyCell><TableBodyCell class="n">{b.saves}</TableBodyCell
							><TableBodyCell class="n">{b.before}</TableBodyCell></TableBodyRow
						>{/each}</TableBody
				>
			</Table>
		</div>
	{:else}
		<div class="h-[200px]" role="img" aria-label="{words[by][0]}: openings and copies saved. The table has the numbers.">
			<canvas bind:this={canvas} aria-hidden="true"></canvas>
		</div>
		<p class="legend">
			<i style="background:var(--verdigris)"></i>Openings <i style="background:var(--brass-bright)"></i>Copies saved
			{#if beside}<i class="before"></i>Both, as long before{/if}
		</p>
	{/if}
</section>

<style>
	.legend {
		display: flex;
		flex-wrap: wrap;
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
	.legend .before {
		height: 2px;
		width: 16px;
		background: var(--ink);
	}
	.scroll :global(.n) {
		text-align: right;
	}
</style>
