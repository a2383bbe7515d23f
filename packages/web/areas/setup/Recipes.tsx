import { DeleteOutlined, EditOutlined } from '@ant-design/icons';
import { api, type Done, type RecipeRow } from '@osier/contract';
import { call } from '../../api/call';
import type { Step } from '@osier/core/recipes';
import { Button, Input } from 'antd';
import { useRef, useState } from 'react';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { Mark } from '../../parts/Mark';
import { SortableRows } from '../../parts/SortableRows';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { StepForm } from './StepForm';
import { setUpWords as wording } from './words';

type Act = (doing: () => Promise<Done>) => Promise<void>;

/** The recipes of this library: read, put in order, renamed, taken away, sent to others and taken over from them. */
export function Recipes() {
  const { data: recipes = [] } = useApi(api.recipes.list);
  const mayChange = useMay('take in deliveries');
  const { say, complain } = useShell();
  const file = useRef<HTMLInputElement>(null);
  const [making, setMaking] = useState(false);
  const act: Act = async (doing) => {
    const done = await doing();
    say(done.sentence, done.entry);
    await refresh();
  };
  /** The same for a button, where there is no form to keep what was typed. */
  const press: Act = (doing) => act(doing).catch((e: unknown) => complain(problemText(e)));
  /** A second one of a name is told apart by a number. */
  const keepNew = (name: string, steps: readonly Step[]) => {
    const taken = (n: string) => recipes.some((r) => r.name === n);
    let free = name;
    for (let n = 2; taken(free); n++) free = `${name} ${n}`;
    return call(api.recipes.keep, { body: { name: free, steps } });
  };
  return (
    <div className="stack">
      <p className="faded">{wording.correctOneIncomingRecordOpen}</p>
      {recipes.map((r) => (
        <RecipeCard
          key={`${r.id} ${r.version}`}
          recipe={r}
          mayChange={mayChange && r.version !== null}
          onCopy={
            mayChange
              ? () =>
                  void press(() =>
                    keepNew(
                      r.name,
                      r.steps.map((x) => x.step),
                    ),
                  )
              : undefined
          }
          act={act}
          press={press}
        />
      ))}
      {mayChange ? (
        <div className="row">
          <Button data-key="n" onClick={() => setMaking(true)}>
            {wording.newRecipe}
          </Button>
          <Button onClick={() => file.current!.click()}>{wording.loadRecipeFromFile}</Button>
          <input
            ref={file}
            type="file"
            accept=".json"
            hidden
            aria-label={wording.recipeFile}
            onChange={(e) => {
              const chosen = e.target.files?.[0];
              e.target.value = '';
              if (chosen)
                void press(async () => call(api.recipes.import, { body: { text: await chosen.text() } }));
            }}
          />
        </div>
      ) : null}
      {making ? (
        <StepForm
          title={wording.firstStepOfANew}
          step={null}
          onClose={() => setMaking(false)}
          onKeep={(step) => act(() => keepNew('New recipe', [step]))}
        />
      ) : null}
    </div>
  );
}

function RecipeCard({
  recipe,
  mayChange,
  onCopy,
  act,
  press,
}: {
  recipe: RecipeRow;
  mayChange: boolean;
  onCopy?: () => void;
  act: Act;
  press: Act;
}) {
  const [name, setName] = useState(recipe.name);
  /** The step that is being written: behind the last one for a new one. */
  const [writing, setWriting] = useState<number | null>(null);
  const steps = recipe.steps.map((s) => s.step);
  const { version } = recipe;
  const id = Number(recipe.id);
  const save = (changes: { name?: string; steps?: Step[] }) =>
    call(api.recipes.change, {
      params: { id },
      body: { name: recipe.name, steps, version: version ?? 0, ...changes },
    });
  return (
    <section className="recipe-card" aria-label={recipe.name}>
      <div className="row spread">
        {mayChange ? (
          <Input
            aria-label={wording.nameOfTheRecipe}
            value={name}
            style={{ maxWidth: 340 }}
            onChange={(e) => setName(e.target.value)}
            onPressEnter={(e) => e.currentTarget.blur()}
            onBlur={() => name.trim() !== recipe.name && void press(() => save({ name }))}
          />
        ) : (
          <h2>{recipe.name}</h2>
        )}
        <span className="row">
          {recipe.version === null ? <span className="faded">{wording.builtIn}</span> : null}
          <a href={`/api/recipes/${recipe.id}/file`}>{wording.saveAsAFile}</a>
          {onCopy ? (
            <Button size="small" className="fix" onClick={onCopy}>
              {wording.copy}
            </Button>
          ) : null}
          {mayChange ? (
            <Button
              size="small"
              className="fix"
              onClick={() =>
                void press(() =>
                  call(api.recipes.remove, { params: { id }, body: { version: version ?? 0 } }),
                )
              }
            >
              {wording.deleteRecipe}
            </Button>
          ) : null}
        </span>
      </div>
      <SortableRows
        rows={recipe.steps}
        keyOf={(_, i) => String(i + 1)}
        nameOf={(step) => step.sentence}
        label={wording.stepsOf(recipe.name)}
        disabled={!mayChange}
        onOrder={(rows) => void press(() => save({ steps: rows.map((r) => r.step) }))}
      >
        {({ sentence }, i) => (
          <div className="recipe-step">
            <span>{sentence}</span>
            {mayChange ? (
              <span className="row nowrap">
                <Button
                  type="text"
                  size="small"
                  icon={<EditOutlined />}
                  aria-label={wording.changeStep(i + 1)}
                  onClick={() => setWriting(i)}
                />
                {steps.length > 1 ? (
                  <Button
                    type="text"
                    size="small"
                    icon={<DeleteOutlined />}
                    aria-label={wording.deleteStep(i + 1)}
                    onClick={() => void press(() => save({ steps: steps.filter((_, k) => k !== i) }))}
                  />
                ) : null}
              </span>
            ) : null}
          </div>
        )}
      </SortableRows>
      {mayChange ? (
        <Button size="small" className="fix" onClick={() => setWriting(steps.length)}>
          {wording.addAStep}
        </Button>
      ) : null}
      {writing !== null ? (
        <StepForm
          title={wording.stepOf(writing + 1, recipe.name)}
          step={steps[writing] ?? null}
          onClose={() => setWriting(null)}
          onKeep={(step) =>
            act(() => save({ steps: [...steps.slice(0, writing), step, ...steps.slice(writing + 1)] }))
          }
        />
      ) : null}
      {recipe.steps.length === 0 ? (
        <p>
          <Mark kind="caution" /> {wording.noStep}
        </p>
      ) : null}
    </section>
  );
}
