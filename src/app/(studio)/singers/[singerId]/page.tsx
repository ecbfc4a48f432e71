import { redirect } from 'next/navigation';

export default async function Page({ params }: { params: Promise<{ singerId: string }> }) {
  redirect(`/singers/${(await params).singerId}/map`);
}
