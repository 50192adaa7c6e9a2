// Our look for Flowbite Svelte's parts, given once to all below the desk's theme provider. Controls take theirs from
// base.css, which the site's pages use too; here stands what has no class of its own there.
import type { ThemeConfig } from 'flowbite-svelte';

export const look: ThemeConfig = {
	checkbox: { base: 'me-0', div: 'gap-1.5 font-normal text-inherit text-[length:inherit]' },
	radio: { input: 'mr-0', label: 'gap-1.5 font-normal text-inherit text-[length:inherit]' },
	table: { div: 'overflow-x-visible', table: 'text-inherit' },
	tableHead: 'normal-case bg-transparent text-inherit',
	tableHeadCell: 'px-3 py-1',
	tableBodyRow: 'border-b-0 bg-transparent',
	tableBodyCell: 'px-3 py-[7px] font-normal whitespace-normal text-inherit'
};
