// The rooms of the desk, in the order of the work. The number keys lead to them in this order.
export const rooms = [
	{ href: '/desk/documents', name: 'Documents' },
	{ href: '/desk/pages', name: 'Pages' },
	{ href: '/desk/people', name: 'People' },
	{ href: '/desk/readership', name: 'Readership' },
	{ href: '/desk/upkeep', name: 'Upkeep' }
] as const;
