//! The OpenAPI description, completed: what holds for every route is said once here and not at each of them.
//!
//! Every error body is `application/problem+json`; every operation names each status that the door, the body's reader, the home and
//! the disk can answer. Files are binary. A variant that is told by a tag beside its own fields is one object, so that a reader who
//! refuses unknown fields takes what the program sends.

use serde_json::{Map, Value, json};
use utoipa::openapi::OpenApi;

/// The whole description.
pub(super) fn complete(description: &OpenApi) -> Value {
    let mut all = serde_json::to_value(description).expect("the description is JSON; anything else is a bug");
    let schemas = all["components"]["schemas"].clone();
    merge_tagged(&mut all, &schemas);
    let problem = json!({ "application/problem+json": { "schema": { "$ref": "#/components/schemas/Problem" } } });
    let responses = PROBLEMS
        .iter()
        .map(|(status, description)| (format!("Problem{status}"), json!({ "description": description, "content": problem })));
    all["components"]["responses"] = Value::Object(responses.collect());
    let paths = all["paths"].as_object_mut().into_iter().flatten();
    for (path, operations) in paths {
        for (method, operation) in operations.as_object_mut().into_iter().flatten() {
            complete_operation(path, method, operation);
        }
    }
    all
}

/// Every status but success, and what it says.
const PROBLEMS: &[(u16, &str)] = &[
    (400, "The connection broke off while sending, or the address is none."),
    (401, "Nobody is in who asks at the second door, or they were sent away."),
    (403, "Not for whoever asks: not for helpers, a wrong code or passphrase, or asked by a page of another site."),
    (404, "There is no such thing."),
    (408, "What was sent came too slowly."),
    (409, "It stands against what is there."),
    (410, "The home was deleted and can be taken back, or has moved to another server."),
    (413, "What was sent is too large."),
    (415, "What was sent is not marked as JSON."),
    (421, "This server was asked under another name."),
    (422, "What was sent or asked for cannot be."),
    (429, "Too many wrong tries; wait as long as Retry-After says."),
    (500, "A fault in the program itself, or a damaged home."),
    (503, "Too much is asked for at once; wait as long as Retry-After says."),
    (507, "The disk is full."),
];

/// What may be answered to an operation besides what stands at its route.
fn complete_operation(path: &str, method: &str, operation: &mut Value) {
    let empty = Vec::new();
    let parameters = operation["parameters"].as_array().unwrap_or(&empty);
    let asks = parameters.iter().any(|parameter| parameter["in"] == "query");
    let body = operation["requestBody"]["content"].as_object();
    let (has_body, has_json) = (body.is_some(), body.is_some_and(|content| content.contains_key("application/json")));
    let is_open = matches!(path, "/api/health" | "/api/me" | "/api/leave");
    let more = [
        (400, has_body || path.contains('{')),
        (401, !is_open),
        (403, true),
        (404, path.contains('{')),
        (408, has_body),
        (410, path.contains("{home}")),
        (413, has_body),
        (415, has_json),
        (421, true),
        (422, has_body || asks || path.contains('{')),
        (500, true),
        (503, true),
        (507, method != "get"),
    ];
    let responses = operation["responses"].as_object_mut().expect("an operation has answers; anything else is a bug");
    for (status, _) in more.into_iter().filter(|(_, applies)| *applies) {
        responses.entry(status.to_string()).or_insert(Value::Null);
    }
    responses.sort_keys();
    for (status, response) in responses.iter_mut() {
        if status.starts_with(['4', '5']) {
            *response = json!({ "$ref": format!("#/components/responses/Problem{status}") });
        } else {
            files_are_binary(response);
        }
    }
    if has_body {
        files_are_binary(&mut operation["requestBody"]);
    }
}

/// Bytes that are no JSON.
fn files_are_binary(body: &mut Value) {
    for (media, of) in body.get_mut("content").and_then(Value::as_object_mut).into_iter().flatten() {
        if media != "application/json" && of["schema"]["type"] == "array" {
            of["schema"] = json!({ "type": "string", "format": "binary" });
        }
    }
}

/// `allOf` of an object that allows no other fields, and of one with the tag, allows nothing at all; both together are one object.
fn merge_tagged(value: &mut Value, schemas: &Value) {
    match value {
        Value::Array(all) => all.iter_mut().for_each(|one| merge_tagged(one, schemas)),
        Value::Object(object) => {
            if let Some(merged) = object.get("allOf").and_then(Value::as_array).and_then(|parts| merged(parts, schemas)) {
                object.remove("allOf");
                for (key, value) in merged {
                    object.entry(key).or_insert(value);
                }
            }
            object.values_mut().for_each(|one| merge_tagged(one, schemas));
        }
        _ => {}
    }
}

fn merged(parts: &[Value], schemas: &Value) -> Option<Map<String, Value>> {
    if parts.len() < 2 {
        return None;
    }
    let resolved = |part: &Value| match part["$ref"].as_str() {
        Some(named) => {
            let named = named.rsplit('/').next()?;
            let schema = &schemas[named];
            match schema["allOf"].as_array() {
                Some(parts) => merged(parts, schemas).map(Value::Object),
                None => Some(schema.clone()),
            }
        }
        None => Some(part.clone()),
    };
    let parts: Vec<Value> = parts.iter().map(resolved).collect::<Option<_>>()?;
    let all_objects = parts.iter().all(|part| part["type"] == "object" && part["oneOf"].is_null());
    if !all_objects || !parts.iter().any(|part| part["additionalProperties"] == json!(false)) {
        return None;
    }
    let (mut properties, mut required) = (Map::new(), Vec::new());
    for part in &parts {
        properties.extend(part["properties"].as_object().cloned().unwrap_or_default());
        required.extend(part["required"].as_array().cloned().unwrap_or_default());
    }
    let described = parts.iter().find_map(|part| part.get("description").cloned());
    let object = json!({ "type": "object", "required": required, "properties": properties, "additionalProperties": false });
    let mut object = object.as_object().cloned()?;
    if let Some(described) = described {
        object.insert("description".into(), described);
    }
    Some(object)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_tagged_variant_is_one_object_that_allows_its_tag() {
        let schemas = json!({
            "Lamp": { "type": "object", "required": ["watts"], "properties": { "watts": { "type": "integer" } }, "additionalProperties": false },
        });
        let mut value = json!({ "oneOf": [{ "allOf": [
            { "$ref": "#/components/schemas/Lamp" },
            { "type": "object", "required": ["kind"], "properties": { "kind": { "enum": ["lamp"] } } },
        ] }] });
        merge_tagged(&mut value, &schemas);
        assert_eq!(
            value["oneOf"][0],
            json!({
                "type": "object", "required": ["watts", "kind"],
                "properties": { "watts": { "type": "integer" }, "kind": { "enum": ["lamp"] } }, "additionalProperties": false,
            })
        );
    }
}
