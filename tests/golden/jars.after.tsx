'use strict'
// Jars on the shelf.
import type { Jar, Lid as Cover } from "./shelf"

type Props = { jar?: Jar | null; onPick?: (jar: Jar) => void; title: string | undefined }

export function JarCard({ jar, onPick, title }: Props) {
	const cover = jar?.cover
	const label = title ?? `jar ${jar?.number}`
	const grams = jar?.grams ?? 500 // the usual jar
	if (
		jar // there
		?.cover?.tight
	) {
		onPick?.(jar)
	}
	return <p title={label ?? 'jar'} className={cover?.tight ? "tight" : 'loose'}>
		{jar?.grams && <b>{jar.grams ?? 0} of {grams}</b>}
		{(jar ?? empty()).number} {/* && */}
	</p>
}

const empty = () => ({ number: 0 } as Jar), covers = (jars?: Jar[]) => (jars ?? []).map(j => j.cover ?? j.lid?.cover as Cover);
while (next?.jar && !next.jar.sold && next.jar.shelf?.[0]) next = next.next
