<!-- Trying the door: what somebody would get here, now or at another moment, and why. -->
<script lang="ts">
	import { Button, Input, Moment, Select } from '$lib/ui/parts/controls';
	import type { Action } from '#core/access/decide';
	import { triedWords } from './tried';
	import type { KeyView } from '$lib/server/access/key-list';
	import type { Tried } from '$lib/server/access/try-door';
	import { call, troubleOf } from '$lib/ui/parts/api';

	let {
		slug,
		groups,
		keys,
		zone,
		door,
		open = $bindable(false)
	}: {
		slug: string;
		groups: readonly { slug: string; name: string }[];
		keys: readonly KeyView[];
		zone: string;
		/** Changes whenever the door does: then it is tried again. */
		door: string;
		open: boolean;
	} = $props();

	let as = $state('visitor');
	let email = $state('');
	let trouble = $state('');
	let tried = $state<Record<'read' | 'save' | 'print', Tried> | null>(null);
	const whom = $derived(as === 'member' ? (email.includes('@') ? `member:${email.trim()}` : null) : as);
	const actions = [
		['read', 'Read'],
		['save', 'Save'],
		['print', 'Print']
	] as const satisfies readonly (readonly [Action, string])[];

	/** The moment in UTC; empty is now. */
	let instant = $state('');
	const seen = $derived(`/desk/try?${new URLSearchParams({ path: `/d/${slug}`, as: whom ?? 'visitor', ...(instant ? { at: instant } : {}) }).toString()}`);

	let asked = 0;
	async function look(who: string | null, moment: string, _door: string) {
		const turn = ++asked;
		trouble = '';
		if (!who) {
			tried = null;
			return;
		}
		try {
			const [read, save, print] = await Promise.all(
				actions.map(([action]) => call('get /documents/{slug}/decision', { path: { slug }, query: { as: who, action, ...(moment ? { at: moment } : {}) } }))
			);
			// one answer for each of the three
			if (turn === asked) tried = { read: read!, save: save!, print: print! };
		} catch (error) {
			if (turn !== asked) return;
			tried = null;
			trouble = troubleOf(error);
		}
	}
	$effect(() => {
		if (open) void look(whom, instant, door);
	});
</script>

<div class="head"><Button kind="quiet" id="try-door" aria-expanded={open} onclick={() => (open = !open)}>Try the door</Button></div>
{#if open}
	<div class="try fields panel">
		<label
			>As
			<Select bind:value={as}>
				<option value="visitor">a visitor</option>
				<option value="member">a member, by e-mail address</option>
				{#each groups as group (group.slug)}<option value="group:{group.slug}">a member of {group.name}</option>{/each}
				{#each keys as key (key.id)}<option value="key:{key.id}">whoever holds the key “{key.label}”</option>{/each}
			</Select></label
		>
		<div class="moment-under wide">
			When, in {zone.replace(/^.*\//, '').replaceAll('_', ' ')} time
			<Moment label="When" value={instant || null} {zone} none="now" usual="12:00" change={(wanted) => (instant = wanted ?? '')} />
		</div>
		{#if as === 'member'}<label class="wide">E-mail address <Input type="email" bind:value={email} /></label>{/if}
		{#if trouble}<p class="trouble wide" role="alert">{trouble}</p>{/if}
		{#if tried}
			<dl class="wide">
				{#each tried.read.allowed ? actions : actions.slice(0, 1) as [action, name] (action)}
					{@const answer = tried[action]}
					<dt class:no={!answer.allowed}>{name}: {answer.allowed ? 'yes' : 'no'}</dt>
					<dd>{triedWords(answer, zone)}</dd>
				{/each}
			</dl>
			<p class="wide"><a href={seen}>See the page as they would</a></p>
		{/if}
	</div>
{/if}

<style>
	.head {
		margin-top: 6px;
		font-size: 13px;
	}
	.head :global(button) {
		font-size: 13px;
	}
	.try {
		margin-top: 4px;
	}
	dl {
		display: grid;
		grid-template-columns: 86px 1fr;
		gap: 3px 8px;
		font-size: 13px;
	}
	dt {
		font-weight: 600;
		color: var(--verdigris);
	}
	dt.no {
		color: var(--brick);
	}
</style>
