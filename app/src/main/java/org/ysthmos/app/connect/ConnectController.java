package org.ysthmos.app.connect;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.adapters.openapi.SystemDraft;
import org.ysthmos.adapters.system.ManyPlaces;
import org.ysthmos.adapters.system.Push;
import org.ysthmos.adapters.system.SignIn;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.secret.SecretVault;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.gateway.RemoteCall;
import org.ysthmos.core.shape.FieldShape;

/** Connecting a system: a draft of its document, a try of each call, and keeping it. */
@RestController
@RequestMapping(path = "/api/connect", produces = MediaType.APPLICATION_JSON_VALUE)
class ConnectController {

  /**
   * Where a description is published, or what it says.
   *
   * @param collections those to draft, by their ids; none or null for all, if they are not too many
   */
  record DraftWish(
      @Nullable String address,
      @Nullable String description,
      @Schema(nullable = true) @Nullable List<String> collections) {}

  /**
   * @param about the collection; empty for the system itself
   */
  record RemarkView(String about, String text) {}

  /**
   * A collection that a description hints at.
   *
   * @param can what can be done there, in a few words
   */
  record OfferedCollection(String id, String path, String can) {}

  /**
   * @param document empty if there are so many collections that a person must choose first
   * @param offered all collections that the description hints at
   */
  record DraftOfSystem(
      String document, List<RemarkView> remarks, List<OfferedCollection> offered) {}

  /** A document as it is typed. */
  record DocumentWish(String document) {}

  /**
   * What a document describes.
   *
   * @param known whether a system of this id is connected already
   */
  record Described(
      String id,
      String name,
      String address,
      boolean known,
      List<SecretView> secrets,
      List<CollectionOfSystem> collections) {}

  /**
   * A secret that the document names.
   *
   * @param kept whether one is kept under this name
   */
  record SecretView(String name, boolean kept) {}

  /**
   * @param calls the calls that can be tried: changes, list, find, key, make, change, remove
   * @param fields those that a record is made with
   * @param holds the fields of a record that is read, each by its address
   * @param hook the path to which webhooks go; empty if none are taken
   */
  record CollectionOfSystem(
      String id,
      String name,
      List<String> calls,
      List<FieldOfRecord> fields,
      List<FieldOfRecord> holds,
      String hook) {}

  record FieldOfRecord(String key, String name, String type, boolean required) {}

  /**
   * One call to try.
   *
   * @param secrets what is typed now, by name; what is left out is taken from what is kept
   */
  record CallWish(
      String document,
      Map<String, String> secrets,
      String collection,
      String call,
      @Nullable String id,
      @Nullable Map<String, String> fields) {}

  /** What was sent and answered. */
  record SentCall(
      List<String> request, String requestBody, int status, String responseBody, String problem) {}

  /** See {@link CallTrial.Outcome}. */
  record CallOutcome(
      boolean works,
      String said,
      String record,
      String id,
      List<String> differences,
      List<SentCall> calls) {}

  record KeepWish(String document, Map<String, String> secrets) {}

  record KeptDocument(@Schema(nullable = true) @Nullable String document) {}

  private final Connecting connecting;
  private final Systems systems;
  private final SecretVault vault;

  ConnectController(Connecting connecting, Systems systems, SecretVault vault) {
    this.connecting = connecting;
    this.systems = systems;
    this.vault = vault;
  }

  @PostMapping("/drafts")
  DraftOfSystem draft(@RequestBody DraftWish wish) {
    Connecting.Drafted drafted =
        connecting.draft(
            Optional.ofNullable(wish.address()).orElse(""),
            Optional.ofNullable(wish.description()).orElse(""),
            Set.copyOf(Optional.ofNullable(wish.collections()).orElse(List.of())));
    return new DraftOfSystem(
        drafted.draft().map(SystemDraft::document).orElse(""),
        drafted.draft().map(SystemDraft::remarks).orElse(List.of()).stream()
            .map(one -> new RemarkView(one.about(), one.text()))
            .toList(),
        drafted.offers().stream()
            .map(one -> new OfferedCollection(one.id(), one.path(), one.can()))
            .toList());
  }

  /** What a document describes, if it can be used. */
  @PostMapping("/descriptions")
  Described described(@RequestBody DocumentWish wish) {
    return connecting.with(wish.document(), Map.of(), opened -> view(opened.description()));
  }

  @PostMapping("/trials")
  CallOutcome trial(@RequestBody CallWish wish) {
    CallTrial.Call call;
    try {
      call = CallTrial.Call.valueOf(wish.call().toUpperCase(Locale.ROOT));
    } catch (IllegalArgumentException e) {
      throw new ApiProblem(
          HttpStatus.BAD_REQUEST, "No such call", "There is no call “" + wish.call() + "”.", e);
    }
    return connecting.with(
        wish.document(),
        wish.secrets(),
        opened ->
            view(
                new CallTrial(opened, wish.collection())
                    .make(
                        call,
                        Optional.ofNullable(wish.id()).orElse(""),
                        Optional.ofNullable(wish.fields()).orElse(Map.of()))));
  }

  /** Keeps the document: from then on bridges can use the system. */
  @PostMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void keep(@RequestBody KeepWish wish) {
    connecting.keep(wish.document(), wish.secrets());
  }

  /** The document of a connected system. */
  @GetMapping("/systems/{id}")
  KeptDocument document(@PathVariable String id) {
    return new KeptDocument(
        systems.document(id).orElseThrow(() -> ApiProblem.notFound("system", id)));
  }

  private Described view(SystemDescription system) {
    TreeSet<String> secrets = new TreeSet<>();
    system.signIn().map(SignIn::secret).ifPresent(secrets::add);
    system
        .described()
        .flatMap(collection -> collection.push().stream())
        .map(push -> push.verify().secret())
        .forEach(secrets::add);
    return new Described(
        system.id(),
        system.name(),
        system.address().toString(),
        systems.find(system.id()).isPresent(),
        secrets.stream().map(name -> new SecretView(name, vault.find(name).isPresent())).toList(),
        Stream.concat(
                system.collections().entrySet().stream()
                    .map(entry -> view(system.id(), entry.getKey(), entry.getValue())),
                system.many().values().stream().map(many -> view(system.id(), many)))
            .toList());
  }

  private static CollectionOfSystem view(String system, ManyPlaces many) {
    return view(system, many.id(), many.name(), many.any());
  }

  private static CollectionOfSystem view(String system, String id, SystemCollection collection) {
    return view(system, id, collection.shape().name(), collection);
  }

  private static CollectionOfSystem view(
      String system, String id, String name, SystemCollection collection) {
    Stream<FieldShape> written =
        collection.makes() || collection.changes()
            ? collection.shape().written().fields().stream()
            : Stream.of();
    return new CollectionOfSystem(
        id,
        name,
        CallTrial.described(collection).stream()
            .map(call -> call.name().toLowerCase(Locale.ROOT))
            .toList(),
        written.map(ConnectController::view).toList(),
        collection.readFields().stream().map(ConnectController::view).toList(),
        collection.push().map(push -> hook(push, system, id)).orElse(""));
  }

  private static FieldOfRecord view(FieldShape field) {
    return new FieldOfRecord(field.key(), field.name(), field.type().toString(), field.required());
  }

  private static String hook(Push push, String system, String id) {
    String token = push.verify() instanceof Push.Verify.PathToken ? "/…the secret" : "";
    return "/hooks/" + system + "/" + id + token;
  }

  private static CallOutcome view(CallTrial.Outcome outcome) {
    return new CallOutcome(
        outcome.works(),
        outcome.said(),
        outcome.record(),
        outcome.id(),
        outcome.differences(),
        outcome.calls().stream().map(ConnectController::view).toList());
  }

  private static SentCall view(RemoteCall call) {
    return new SentCall(
        call.request(), call.requestBody(), call.status(), call.responseBody(), call.problem());
  }
}
