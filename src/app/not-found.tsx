import { Trouble } from '@/components/Trouble';

export default function NotFound() {
  return (
    <Trouble title="There is no such page">
      Choose a stage at the top: Books, Budget, Cash, Statements or Variance.
    </Trouble>
  );
}
