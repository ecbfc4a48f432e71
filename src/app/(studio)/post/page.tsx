import { found } from '@/server/found';
import { viewPost } from '@/server/links';
import { PostRoom } from '@/ui/settings/PostRoom';

export const metadata = { title: 'Post' };

export default async function Page() {
  return <PostRoom {...await found(viewPost())} />;
}
