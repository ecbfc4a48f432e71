import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { found } from '@/server/found';
import { viewPost } from '@/server/links';
import { PostRoom } from '@/ui/settings/PostRoom';

export const generateMetadata = () => titled(texts('Post'));

export default async function Page() {
  return <PostRoom {...await found(viewPost())} />;
}
