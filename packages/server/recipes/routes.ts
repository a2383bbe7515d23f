import { recipeBody, recipeChangeBody, recipeFileBody, recipeRemovalBody } from '@osier/contract';
import { recipeFile } from '@osier/core/recipes';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { changeRecipe, importRecipe, keepRecipe, listRecipes, recipeNamed, removeRecipe } from './recipes';

/** Recipes: keep, change, import, export. */
export function recipeRoutes(services: Services): Route[] {
  const take = 'take in deliveries' as const;
  return [
    route({
      method: 'get',
      path: '/recipes',
      summary: 'The recipes and their steps',
      permission: 'look',
      work: () => listRecipes(services),
    }),
    route({
      method: 'post',
      path: '/recipes',
      summary: 'Keep a recipe',
      permission: take,
      body: recipeBody,
      work: ({ person, body }) => keepRecipe(services, person.id, body),
    }),
    route({
      method: 'post',
      path: '/recipes/import',
      summary: 'Take over a recipe from a file of another library',
      permission: take,
      body: recipeFileBody,
      work: ({ person, body }) => importRecipe(services, person.id, body.text),
    }),
    route({
      method: 'put',
      path: '/recipes/:id',
      summary: 'Change a recipe',
      permission: take,
      body: recipeChangeBody,
      work: ({ id, person, body }) => changeRecipe(services, person.id, id(), body),
    }),
    route({
      method: 'post',
      path: '/recipes/:id/remove',
      summary: 'Take a recipe away',
      permission: take,
      body: recipeRemovalBody,
      work: ({ id, person, body }) => removeRecipe(services, person.id, id(), body.version),
    }),
    route({
      method: 'get',
      path: '/recipes/:name/file',
      summary: 'A recipe as a file',
      permission: 'look',
      work: async ({ params, res }) => {
        const recipe = await recipeNamed(services.store, params.name ?? '');
        const name = recipe.name.replace(/[^A-Za-z0-9-]+/g, '-').toLowerCase();
        res.setHeader('content-disposition', `attachment; filename="${name}.recipe.json"`);
        res.type('json').send(recipeFile(recipe));
        return undefined;
      },
    }),
  ];
}
