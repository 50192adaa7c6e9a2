<!-- Pages of two editions beside each other as pictures, what differs in them marked on both. -->
<script lang="ts">
	import pixelmatch from 'pixelmatch';
	import { changedBoxes, type ChangedBox } from '#core/documents/changed-boxes';
	import type { ComparedPage } from '#core/documents/compare';
	import { counted } from '#core/text/list';

	let {
		slug,
		pages,
		before,
		after
	}: {
		slug: string;
		pages: readonly Pick<ComparedPage, 'before' | 'after'>[];
		/** Numbers of the editions. */
		before: number;
		after: number;
	} = $props();

	/** Width at which they are compared, px. */
	const width = 400;
	type Pair = Partial<Record<'before' | 'after', HTMLImageElement>>;
	const loaded: Pair[] = [];
	/** Of each pair that has come: what differs, that the pages have another shape, or that a picture did not come. */
	let found = $state<Record<number, readonly ChangedBox[] | 'shape' | 'lost'>>({});

	function came(at: number, which: 'before' | 'after', image: HTMLImageElement) {
		const pair = (loaded[at] ??= {});
		pair[which] = image;
		if (pair.before && pair.after) found[at] = differing(pair.before, pair.after);
	}
	function differing(was: HTMLImageElement, is: HTMLImageElement): readonly ChangedBox[] | 'shape' {
		const [high, higher] = [was.naturalHeight / was.naturalWidth, is.naturalHeight / is.naturalWidth];
		if (Math.abs(high - higher) > 0.02) return 'shape';
		const height = Math.round(width * higher);
		const [one, other] = [pixelsOf(was, height), pixelsOf(is, height)];
		if (!one || !other) return [];
		const mask = new Uint8ClampedArray(width * height * 4);
		pixelmatch(one, other, mask, width, height, { diffMask: true });
		return changedBoxes(mask, width, height);
	}
	function pixelsOf(image: HTMLImageElement, height: number): Uint8ClampedArray | undefined {
		const canvas = document.createElement('canvas');
		[canvas.width, canvas.height] = [width, height];
		const context = canvas.getContext('2d', { willReadFrequently: true });
		context?.drawImage(image, 0, 0, width, height);
		return context?.getImageData(0, 0, width, height).data;
	}
	/** A picture may have come before the page was taken over. */
	const onceThere = (at: number, which: 'before' | 'after') => (image: HTMLImageElement) => {
		const told = () => came(at, which, image);
		if (image.complete && image.naturalWidth) told();
		else image.addEventListener('load', told, { once: true });
		image.addEventListener('error', () => (found[at] = 'lost'), { once: true });
	};
	const said = (at: number, { before: was, after: is }: (typeof pages)[number]) => {
		if (was === null || is === null) return was === null ? `Only in edition ${after}.` : `Only in edition ${before}.`;
		const differs = found[at];
		if (differs === undefined) return 'Comparing…';
		if (differs === 'lost') return 'A picture did not come. Load the page again to compare it.';
		return differs === 'shape'
			? 'The page has another shape.'
			: differs.length
				? `Differs in ${counted(differs.length, 'place', 'places')}.`
				: 'Looks the same.';
	};
</script>

{#each pages as page, at (at)}
	{@const differs = found[at]}
	<div class="pair">
		{#each [['before', before, page.before], ['after', after, page.after]] as const as [which, edition, number] (which)}
			<figure class={which}>
				{#if number !== null}<span class="leaf"
						><img
							src="/d/{slug}/leaf/{number}.webp?w=800&e={edition}"
							alt="Page {number} of edition {edition}"
							loading="lazy"
							{@attach onceThere(at, which)}
						/>{#if Array.isArray(differs)}{#each differs as box, n (n)}<i
									style="left:{box.x * 100}%;top:{box.y * 100}%;width:{box.width * 100}%;height:{box.height * 100}%"
								></i>{/each}{/if}</span
					>{:else}<span class="none">not there</span>{/if}
				<figcaption>Edition {edition}{number === null ? '' : `, page ${number}`}</figcaption>
			</figure>
		{/each}
		<p role="status">{said(at, page)}</p>
	</div>
{/each}

<style>
	.pair {
		display: grid;
		grid-template-columns: repeat(2, minmax(0, 1fr));
		gap: 4px 14px;
		margin: 10px 0 20px;
	}
	.leaf {
		position: relative;
		display: block;
	}
	img {
		display: block;
		width: 100%;
		min-height: 120px;
		background: #fff;
		border: 1px solid var(--edge);
	}
	.none {
		display: grid;
		place-items: center;
		min-height: 120px;
		border: 1px dashed var(--edge);
		color: var(--ink-soft);
	}
	i {
		position: absolute;
		/* the light theme's brick and verdigris: the page is white by night, too */
		border: 2px solid #9b3722;
		border-radius: 2px;
	}
	.after i {
		border-color: #1c6a61;
	}
	figcaption,
	p {
		font-size: 13px;
		color: var(--ink-soft);
	}
	p {
		grid-column: 1 / -1;
	}
</style>
