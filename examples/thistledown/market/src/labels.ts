import { Lot, Keeper } from "./model.js";

/* Labels are printed on the old machine in the dairy, which wants CRLF in everything it is fed,
   this file included. */
export function label(lot: Lot, width?: number): string {
	const columns = width != null ? width : 24;
	const lines = [
		lot.flower.toUpperCase() + ' HONEY',
		(lot.keeper != null ? lot.keeper : nobody()).name,   // the keeper
		'lot ' + lot.code,
	];
	return lines.map(line => '| ' + line.padEnd(columns) + ' |').join('\r\n');
}

function nobody(): Keeper {
	return { name: 'the co-operative', village: 'Thistledown' };
}

export function phone(keeper: Keeper | undefined): string {
	if (keeper && keeper.phone) {
		return keeper.phone;
	}
	return '-';
}
